import { optionalBase64, u8 } from '../fields';
import { recordType } from '../recordType';

/** IANA registry */
export const SINK = recordType('SINK', 40, [u8('meaning'), u8('coding'), u8('subcoding'), optionalBase64('data')]);
