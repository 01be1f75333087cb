import { domain } from '../fields';
import { recordType } from '../recordType';

/** RFC 1183 §2.2 */
export const RP = recordType('RP', 17, [domain('mailbox'), domain('text name')], 'lowered');
