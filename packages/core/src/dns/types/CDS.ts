import { dsFields, dsLength } from '../dsFields';
import { recordType } from '../recordType';

/** RFC 7344 */
export const CDS = recordType('CDS', 59, dsFields, 'as they are', dsLength);
