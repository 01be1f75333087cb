import { Edns } from '@wanderon/core';

/** What a question offers that wants signatures with the answer (RFC 3225, RFC 4035 §3.1). */
export const SIGNED: Edns = { udpSize: 1232, version: 0, dnssecOk: true, options: [] };
