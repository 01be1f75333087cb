import { base64, domain, instant, mnemonicNumber, type, u16, u32, u8 } from '../fields';
import { ALGORITHMS } from '../mnemonics';
import { recordType } from '../recordType';

/** RFC 4034 §3 */
export const RRSIG = recordType(
  'RRSIG',
  46,
  [
    type('type covered'),
    mnemonicNumber('algorithm', ALGORITHMS, 1),
    u8('labels'),
    u32('original TTL'),
    instant('expiration'),
    instant('inception'),
    u16('key tag'),
    domain('signer'),
    base64('signature'),
  ],
  'lowered',
);
