import { distance } from '../nameservers/misspelt';
import { RecordSlip, shown, without } from './slip';

const withoutNumbers = (text: string): string => text.toLowerCase().replace(/\d+/g, '#');

/** A host's front answers where the plan has the true addresses. */
export const frontedAlready: RecordSlip = ({ served, planned, isFront }) =>
  served.length > 0 && served.every(isFront) && !planned.some(isFront)
    ? { code: 'fronted', text: 'The host answers with its own front’s addresses: switch fronting off for this name until the plan says otherwise.' }
    : undefined;

/** The value of another row, or of the same series with a number that was not changed. */
export const valueOfAnother: RecordSlip = ({ owner, type, planned, served, rows }) => {
  const [wrong] = without(served, planned);
  const [wanted] = without(planned, served);
  if (wrong === undefined || wanted === undefined) return undefined;
  const numbered = withoutNumbers(wrong) === withoutNumbers(wanted) && type !== 'A' && type !== 'AAAA';
  if (numbered) return { code: 'number', text: `${shown(wrong)} has another number than ${shown(wanted)}: it was copied, and the number not changed.` };
  const other = rows.find(
    (row) => row.owner.toLowerCase() !== owner.toLowerCase() && row.type === type && row.planned.some((one) => one.toLowerCase() === wrong.toLowerCase()),
  );
  return other
    ? { code: 'value of another', text: `${shown(wrong)} is what ${shown(other.owner)} is to have: it is in the wrong row. Here it is ${shown(wanted)}.` }
    : undefined;
};

/** A letter or two exchanged, left out or doubled. */
export const misspeltValue: RecordSlip = ({ planned, served }) => {
  const [wrong] = without(served, planned);
  const [wanted] = without(planned, served);
  if (wrong === undefined || wanted === undefined || wanted.length < SHORTEST) return undefined;
  return distance(wrong.toLowerCase(), wanted.toLowerCase()) <= 2
    ? { code: 'misspelt', text: `${shown(wrong)} is misspelt: it is ${shown(wanted)}.` }
    : undefined;
};

/** Characters below which two values that differ in two are simply others. */
const SHORTEST = 7;
