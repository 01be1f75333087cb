import { dsFields, dsLength } from '../dsFields';
import { recordType } from '../recordType';

/** RFC 4034 §5 */
export const DS = recordType('DS', 43, dsFields, 'as they are', dsLength);
