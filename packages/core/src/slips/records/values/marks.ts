import { ValueSlip } from '../slip';
import { inSentence } from '../typedValue';

const MARKS = '["\'`´“”„‟‘’‚«»‹›]';
const AROUND = new RegExp(`^(?:${MARKS})+|(?:${MARKS})+$`, 'g');

/** Quotes were typed into a panel that takes values bare: they are part of the value now. */
export const marks: ValueSlip = ({ is, was, type }) => {
  const bare = is.replace(AROUND, '');
  if (bare === is) return undefined;
  const whole = bare.replace(/(?:["“”]) *(?:["“”])/g, '');
  if (bare !== was && whole !== was && bare.toLowerCase() !== was.toLowerCase()) return undefined;
  // The text itself may be one that begins and ends with a quote.
  const what = type === 'TXT' || type === 'SPF' ? 'text' : 'value';
  return { code: 'quotes stored', cost: 1, text: `The quotes are stored as part of the ${what}: type it without them, ${inSentence(was)}.` };
};
