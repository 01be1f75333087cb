import { domain } from '../fields';
import { recordType } from '../recordType';

/** RFC 1035 §3.3.8 */
export const MR = recordType('MR', 9, [domain('mailbox')], 'compressed');
