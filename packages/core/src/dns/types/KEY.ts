import { optionalKeyFields } from '../keyFields';
import { recordType } from '../recordType';

/** RFC 2535 §3 */
export const KEY = recordType('KEY', 25, optionalKeyFields);
