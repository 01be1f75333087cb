import { domain } from '../fields';
import { recordType } from '../recordType';

/** RFC 1035 §3.3.5; obsolete, and no longer loaded from zone files (RFC 1123 §6.1.2.2). */
export const MF = recordType('MF', 4, [domain('host')], 'compressed');
