import { isChanging, isHostsOwn } from '../../rebuild/ruling';
import { isTakeover } from '../account';
import { unseenNames } from '../fronted';
import { ServerSeen, ZoneSight } from '../seen';
import { Leg } from '../leg';
import { SetKey } from '../plan';
import { StepRule, Way, asideWay, stands } from './rule';
import { readBack, readBackWords } from './served';

/** Seconds after which a secondary that still serves the old values may have been forgotten. */
const LONG = 3600;

/** Every authority seen to serve the new values, and none to have gone back. */
export const changed: StepRule = {
  id: 'changed',
  chapter: 'switch',
  title: 'See the records changed',
  titleIn: (plan) => (isTakeover(plan) ? 'See the other account’s zone served' : undefined),
  label: 'change seen',
  after: ['change'],
  by: 'seen',
  counts: 'seen',
  applies: (plan) => plan.kind === 'repoint',
  standing: (leg) => {
    const { t0, ts } = leg.times;
    if (t0) return stands('done', { doneAt: t0.firstNew, since: t0.lastOld });
    if (ts === undefined) return stands('waiting', unseenWords(leg));
    return stands('doing', { since: ts, text: changedWords(leg), ways: waysOf(leg) });
  },
};

/** Where the same edge fronts a name before and after, DNS shows nothing: the word of whoever changes it counts, and the page. */
function unseenWords(leg: Leg): { readonly text: string } | Record<never, never> {
  if (isTakeover(leg.plan) && !leg.plan.rulings.some((row) => isChanging(row) && !isHostsOwn(row)))
    return {
      text: 'No value changes: no answer shows which account is live. The word of whoever takes it over counts, and that nothing is missing afterwards.',
    };
  const names = unseenNames(leg.plan).map((name) => name.replace(/\.$/, ''));
  if (names.length === 0) return {};
  return {
    text: `${leg.plan.newHost!.name} answers ${names.join(', ')} with its own addresses before and after: no answer shows the change. The word of whoever makes it counts, and what the page shows.`,
  };
}

/** What authorities do not serve as planned after the change was made; null where nothing was seen yet. */
function changedWords(leg: Leg): string | null {
  return (
    readBackWords(
      leg,
      readBack(leg).filter((one) => !leg.said.aside.has(one.address) && (one.problem !== null || one.differs.length + one.unanswered.length > 0)),
    ) || null
  );
}

function wasNew(leg: Leg, address: string, key: SetKey): boolean {
  const sightings = leg.seen.zones.find((one) => one.address === address)?.sightings ?? [];
  return sightings.some(({ value }) => value.sets[key] !== undefined && leg.wanted.is(key, value.sets[key]) === true);
}

/** What somebody set otherwise is set right by pushing it again; a server that is dead is set aside. */
function waysOf(leg: Leg): Way[] {
  const made = leg.state.work.get('change');
  const differing = readBack(leg).filter((one) => one.problem === null && one.differs.length > 0);
  // A secondary that follows later is no reason to do anything.
  const late = made !== undefined && leg.now - made.since > LONG;
  const differs = differing.some((one) => late || one.differs.some(({ key }) => wasNew(leg, one.address, key)));
  const silent = leg.seen.zones.filter((one: ServerSeen<ZoneSight>) => one.silence && leg.times.lacking.some((lack) => lack.address === one.address));
  return [
    ...(made?.outcome === 'done' && differs
      ? [
          { act: 'adopt', subject: '', label: 'Take what is served into the plan', means: 'The plan becomes what the servers answer.' } as const,
          { act: 'take', subject: '', label: 'Set it right', means: 'The records are changed again.' } as const,
        ]
      : []),
    ...silent.map((one) => asideWay(one.address, one.server)),
    ...readBack(leg).flatMap((one) => (one.problem === null && one.unanswered.length > 0 ? [asideWay(one.address, one.server)] : [])),
  ];
}
