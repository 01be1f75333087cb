import { domain } from '../fields';
import { recordType } from '../recordType';

/** RFC 1035 §3.3.6 */
export const MG = recordType('MG', 8, [domain('mailbox')], 'compressed');
