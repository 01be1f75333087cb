import { ByteReader, WireError, asciiText } from '../bytes';
import { domain, string, u16 } from '../fields';
import { substitutionProblem } from '../naptrExpression';
import { recordType } from '../recordType';

/** RFC 3403 §4 */
export const NAPTR = recordType(
  'NAPTR',
  35,
  [u16('order'), u16('preference'), string('flags'), string('services'), string('expression'), domain('replacement')],
  'lowered',
  (data) => {
    const reader = new ByteReader(data, 4);
    reader.skip(reader.u8());
    reader.skip(reader.u8());
    const problem = substitutionProblem(asciiText(reader.bytes(reader.u8())));
    if (problem !== undefined) throw new WireError(problem);
  },
);
