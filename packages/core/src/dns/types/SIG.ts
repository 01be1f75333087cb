import { base64, domain, instant, type, u16, u32, u8 } from '../fields';
import { recordType } from '../recordType';

/** RFC 2535 §4 */
export const SIG = recordType(
  'SIG',
  24,
  [
    type('type covered'),
    u8('algorithm'),
    u8('labels'),
    u32('original TTL'),
    instant('expiration'),
    instant('inception'),
    u16('key tag'),
    domain('signer'),
    base64('signature'),
  ],
  true,
);
