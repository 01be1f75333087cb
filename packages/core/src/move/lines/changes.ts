import { isChanging } from '../../rebuild/ruling';
import { isTakeover } from '../account';
import { LineRule, line } from './line';

/** A leg that changes records where they are changes some. */
export const changes: LineRule = (leg) => {
  if (leg.plan.kind !== 'repoint') return undefined;
  const takeover = isTakeover(leg.plan);
  const count = leg.plan.rulings.filter(isChanging).length;
  return line(
    leg,
    'changes',
    takeover || count > 0,
    takeover
      ? `Every record set goes into the other account; ${count === 0 ? 'none changes its value' : count === 1 ? 'one changes its value' : `${count} change their values`}.`
      : count > 0
        ? `${count} record ${count === 1 ? 'set changes' : 'sets change'}, nothing else.`
        : 'The plan changes nothing: say in Rebuild what is to change.',
  );
};
