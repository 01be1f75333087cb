import { strings } from '../fields';
import { recordType } from '../recordType';

/** RFC 1035 §3.3.14 */
export const TXT = recordType('TXT', 16, [strings('text')]);
