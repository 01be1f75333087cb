import { strings } from '../fields';
import { recordType } from '../recordType';

/** RFC 7208 §3.1 */
export const SPF = recordType('SPF', 99, [strings('text')]);
