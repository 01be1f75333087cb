import { withoutNumbers } from '../names';
import { NameSlip, SurplusSlip } from './slip';

/** A wanted name that stands there once more than it should. */
export const twice: SurplusSlip = ({ typed, isWanted }) => (isWanted ? { code: 'twice', cost: 0.5, text: `${typed} stands twice: take one out.` } : undefined);

/** A name of a numbered series that was copied, and its number not changed. */
export const copied: NameSlip = ({ typed, wanted }) =>
  withoutNumbers(wanted) === withoutNumbers(typed) && withoutNumbers(wanted) !== wanted.toLowerCase()
    ? {
        code: 'number',
        cost: 1,
        text: `${typed} stands twice: the ${/\d/.test(typed.split('.')[0]!) ? 'number' : 'letter'} was not changed. One of them is ${wanted}.`,
      }
    : { code: 'twice', cost: 1.6, text: `${typed} stands twice: one of them is ${wanted}.` };
