import { hex, u8 } from '../fields';
import { recordType } from '../recordType';

/** RFC 6698 §2 */
export const TLSA = recordType('TLSA', 52, [u8('usage'), u8('selector'), u8('matching type'), hex('certificate data')]);
