import { dsFields, dsLength } from '../dsFields';
import { recordType } from '../recordType';

/** IANA registry */
export const TA = recordType('TA', 32768, dsFields, 'as they are', dsLength);
