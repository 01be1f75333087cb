import { keyFlags, keyOctets, mnemonicNumber } from './fields';
import { ALGORITHMS, PROTOCOLS } from './mnemonics';

/** What DNSKEY, KEY and the types laid out like them hold (RFC 4034 §2.1, RFC 2535 §3.1). */
export const keyFields = [keyFlags('flags'), mnemonicNumber('protocol', PROTOCOLS, 1), mnemonicNumber('algorithm', ALGORITHMS, 1), keyOctets('key')];
