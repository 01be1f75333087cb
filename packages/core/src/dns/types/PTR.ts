import { domain } from '../fields';
import { recordType } from '../recordType';

/** RFC 1035 §3.3.12 */
export const PTR = recordType('PTR', 12, [domain('target')], 'compressed');
