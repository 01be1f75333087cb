import { plain } from '../../survey/words';
import { rebuildsZone } from '../account';
import { keyOfRow, setKey } from '../plan';
import { LineRule, line } from './line';

/** Sets that are told. */
const TOLD = 3;

/** What the old zone is known to hold, or may, and nobody could read, is in the plan by now: whatever is not is lost with the old host. */
export const unread: LineRule = (leg) => {
  const { plan } = leg;
  const sets = plan.unread ?? [];
  if (sets.length === 0 || !rebuildsZone(plan) || plan.isBack) return undefined;
  const ruled = new Set(plan.rulings.map(keyOfRow));
  const open = sets.filter(({ owner, type }) => !ruled.has(setKey(owner, type)));
  if (open.length === 0) return line(leg, 'unread', true, 'What the survey could not read is in the plan.');
  const told = open.slice(0, TOLD).map(({ owner, text }) => `${plain(owner)}: ${text}`);
  return line(
    leg,
    'unread',
    false,
    `The survey could not read everything. ${told.join('; ')}${open.length > TOLD ? `; and ${open.length - TOLD} more` : ''}.`,
    {
      evidence: 'Look it up in the old panel and add it in Rebuild, or give the survey a file that has it.',
      waivable: true,
      about: open.map(({ owner, type }) => `${owner} ${type}`),
    },
  );
};
