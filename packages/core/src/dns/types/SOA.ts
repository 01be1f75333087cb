import { domain, seconds, u32 } from '../fields';
import { recordType } from '../recordType';

/** RFC 1035 §3.3.13, RFC 2308 §4 */
export const SOA = recordType(
  'SOA',
  6,
  [domain('primary'), domain('mailbox'), u32('serial'), seconds('refresh'), seconds('retry'), seconds('expire'), seconds('minimum')],
  'compressed',
);
