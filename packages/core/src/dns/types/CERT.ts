import { base64, mnemonicNumber, u16 } from '../fields';
import { ALGORITHMS, CERTIFICATE_TYPES } from '../mnemonics';
import { recordType } from '../recordType';

/** RFC 4398 §2; mnemonics are printed, as servers do. */
export const CERT = recordType('CERT', 37, [
  mnemonicNumber('type', CERTIFICATE_TYPES, 2, { printed: true }),
  u16('key tag'),
  mnemonicNumber('algorithm', ALGORITHMS, 1, { printed: true }),
  base64('certificate'),
]);
