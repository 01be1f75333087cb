import { nameKey } from '../../watch/verdict';
import { NameSlip } from './slip';

/** A name of the set from before that was not taken out. */
export const leftOver: NameSlip = ({ typed, key, twice, context }) => {
  if (twice || !context.old.some((name) => nameKey(name) === key)) return undefined;
  return { code: 'left over', wanted: null, text: `${typed} is left from before: take it out.` };
};
