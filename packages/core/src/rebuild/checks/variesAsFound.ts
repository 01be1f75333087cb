import { VARIES, isAsFound } from '../ruling';
import { Check, remark } from './check';

/** A set that is answered otherwise from one question to the next is kept as it was answered once: the other answers are not in the plan. */
export const variesAsFound: Check = ({ rulings }) =>
  rulings
    .filter((row) => isAsFound(row) && row.reason.endsWith(VARIES))
    .map((row) =>
      remark(
        row,
        'look',
        'varies-as-found',
        'Its server answers this otherwise from one question to the next, and the plan has one of the answers: see in its panel what is stored, and add the others.',
      ),
    );
