import { text, u16 } from '../fields';
import { recordType } from '../recordType';

/** RFC 7553 */
export const URI = recordType('URI', 256, [u16('priority'), u16('weight'), text('target', { quoted: true })]);
