import { dsFields, dsLength } from '../dsFields';
import { recordType } from '../recordType';

/** RFC 4431 */
export const DLV = recordType('DLV', 32769, dsFields, 'as they are', dsLength);
