import { base64, keyFlags, keyOctets, mnemonicNumber } from './fields';
import { ALGORITHMS, PROTOCOLS } from './mnemonics';

const head = [keyFlags('flags'), mnemonicNumber('protocol', PROTOCOLS, 1), mnemonicNumber('algorithm', ALGORITHMS, 1)];

/** What DNSKEY and the types laid out like it hold (RFC 4034 §2.1). */
export const keyFields = [...head, base64('key')];

/** What KEY holds: flags may say that there is no key (RFC 2535 §3.1.2). */
export const optionalKeyFields = [...head, keyOctets('key')];
