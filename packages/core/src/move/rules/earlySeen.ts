import { earlySets } from '../../hosts/needs';
import { Instant } from '../../timetable/instant';
import { Leg } from '../leg';
import { keyOfRow } from '../plan';
import { looksEarly } from './early';
import { StepRule, Way, stands } from './rule';

/** Every authority of the live zone that answers seen to have what the web host looks for, when it was asked last. */
export const earlySeen: StepRule = {
  id: 'early-seen',
  chapter: 'rebuild',
  title: 'See it in the live zone',
  label: undefined,
  after: ['early'],
  by: 'seen',
  counts: 'done',
  applies: looksEarly,
  standing: (leg) => {
    const left = leg.said.left.get('early-seen');
    if (left) return stands('left', { doneAt: left.at, decision: left });
    const { at, lacking } = earlyAt(leg);
    if (at !== undefined && lacking.length === 0) return stands('done', { doneAt: at });
    // After the cutover the live zone is another one, or holds it by the plan.
    if (leg.times.ts !== undefined) return stands('left', { doneAt: leg.times.ts, text: 'The cutover came before it was seen.' });
    const text =
      at === undefined ? 'No server of the live zone was asked for it yet.' : `${lacking.join(', ')} ${lacking.length === 1 ? 'does' : 'do'} not have it yet.`;
    return stands('doing', { text, ways: [GO_ON] });
  },
};

const GO_ON: Way = { act: 'leave', subject: 'early-seen', label: 'Go on without seeing it', means: 'What rests on it can be done all the same.' };

/** The oldest of the last sights that have it all, and the servers that answer without it. One that is silent tells nothing. */
function earlyAt(leg: Leg): { readonly at: Instant | undefined; readonly lacking: readonly string[] } {
  const sets = earlySets(leg.plan);
  const lacking: string[] = [];
  let at: Instant | undefined;
  for (const { server, address } of leg.plan.oldServers) {
    const seen = leg.seen.zones.find((one) => one.address === address);
    const sighting = seen?.sightings.at(-1);
    if (!sighting || seen?.silence || leg.said.aside.has(address)) continue;
    const answers = sets.map((set) => ({ values: set.values, data: sighting.value.sets[keyOfRow(set)]?.data }));
    if (answers.some(({ data }) => data === undefined)) continue;
    if (answers.every(({ values, data }) => values.every((one) => data!.includes(one)))) at = Math.min(at ?? Infinity, sighting.last);
    else lacking.push(server.replace(/\.$/, ''));
  }
  return { at: at ?? (lacking.length > 0 ? leg.now : undefined), lacking };
}
