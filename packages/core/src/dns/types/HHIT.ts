import { base64 } from '../fields';
import { recordType } from '../recordType';

/** RFC 9886 §5.1 */
export const HHIT = recordType('HHIT', 67, [base64('data')]);
