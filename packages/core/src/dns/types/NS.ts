import { domain } from '../fields';
import { recordType } from '../recordType';

/** RFC 1035 §3.3.11 */
export const NS = recordType('NS', 2, [domain('name server')], 'compressed');
