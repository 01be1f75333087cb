import { base64 } from '../fields';
import { recordType } from '../recordType';

/** RFC 9886 §5.2 */
export const BRID = recordType('BRID', 68, [base64('data')]);
