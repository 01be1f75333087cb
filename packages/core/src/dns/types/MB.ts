import { domain } from '../fields';
import { recordType } from '../recordType';

/** RFC 1035 §3.3.3 */
export const MB = recordType('MB', 7, [domain('host')], 'compressed');
