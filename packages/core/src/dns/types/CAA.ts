import { caaTag, text, u8 } from '../fields';
import { recordType } from '../recordType';

/** RFC 8659 §4 */
export const CAA = recordType('CAA', 257, [u8('flags'), caaTag('tag'), text('value', { quoted: false })]);
