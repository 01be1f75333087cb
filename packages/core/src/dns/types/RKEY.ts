import { keyFields } from '../keyFields';
import { recordType } from '../recordType';

/** IANA registry */
export const RKEY = recordType('RKEY', 57, keyFields);
