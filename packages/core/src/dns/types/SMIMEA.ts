import { hex, u8 } from '../fields';
import { recordType } from '../recordType';

/** RFC 8162 */
export const SMIMEA = recordType('SMIMEA', 53, [u8('usage'), u8('selector'), u8('matching type'), hex('certificate data')]);
