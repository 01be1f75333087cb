import { strings } from '../fields';
import { recordType } from '../recordType';

/** RFC 9606 §4 */
export const RESINFO = recordType('RESINFO', 261, [strings('text')]);
