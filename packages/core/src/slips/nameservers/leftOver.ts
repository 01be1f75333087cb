import { nameKey } from '../../watch/verdict';
import { SurplusSlip } from './slip';

/** A name of the set from before that was not taken out. */
export const leftOver: SurplusSlip = ({ typed, isWanted, context }) =>
  !isWanted && context.old.some((name) => nameKey(name) === nameKey(typed))
    ? { code: 'left over', cost: 0, text: `${typed} is left from before: take it out.` }
    : undefined;
