import { domain } from '../fields';
import { recordType } from '../recordType';

/** RFC 1035 §3.3.1 */
export const CNAME = recordType('CNAME', 5, [domain('target')], 'compressed');
