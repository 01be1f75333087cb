import { isChanging } from '../../rebuild/ruling';
import { LineRule, line } from './line';

/** A leg that changes records where they are changes some. */
export const changes: LineRule = (leg) => {
  if (leg.plan.kind !== 'repoint') return undefined;
  const count = leg.plan.rulings.filter(isChanging).length;
  return line(
    leg,
    'changes',
    count > 0,
    count > 0
      ? `${count} record ${count === 1 ? 'set changes' : 'sets change'}, nothing else.`
      : 'The plan changes nothing: rule in the ledger what is to change.',
  );
};
