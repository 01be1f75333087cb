import { FRONT_ON, frontingOf, isFrontAnswer } from '../fronted';
import { Leg } from '../leg';
import { LegPlan, setKey } from '../plan';
import { againWay, leaveWay } from './personStep';
import { StepRule, Way, stands } from './rule';

/** Names that had fronting off until the web host had verified the domain get it; every authority is seen to answer so. */
export const frontOn: StepRule = {
  id: FRONT_ON,
  chapter: 'watch',
  title: 'Have the DNS host answer with its own addresses',
  label: undefined,
  // A web host verifies a name once it leads there: that is soon after the switch, and long before everything old has run out.
  after: ['switch', 'changed'],
  by: 'person',
  counts: 'done',
  applies: (plan) => plan.chosen && later(plan).length > 0,
  standing: (leg) => {
    const [done, left] = [leg.said.done.get(FRONT_ON), leg.said.left.get(FRONT_ON)];
    if (left) return stands('left', { doneAt: left.at, decision: left, ways: [AGAIN] });
    const names = later(leg.plan);
    const host = leg.plan.newHost!.name;
    if (!done) {
      const web = leg.plan.newWeb ? `once ${leg.plan.newWeb.name} has verified the domain` : 'once the web host has verified the domain';
      return stands('ready', { text: `At ${host}, ${web}: switch on that it answers ${words(names)} with its own addresses.`, ways: [DONE, LEAVE] });
    }
    const lacking = names.filter((name) => !isFronted(leg, name));
    if (lacking.length === 0) return stands('done', { doneAt: done.at, decision: done });
    return stands('doing', {
      since: done.at,
      text: `${host} does not answer with its own addresses yet for ${words(lacking)}.`,
      decision: done,
      ways: [AGAIN, LEAVE],
    });
  },
};

const DONE: Way = { act: 'done', subject: FRONT_ON, label: 'It is switched on', means: 'It is looked for at every server.' };
const LEAVE = leaveWay(FRONT_ON, 'Leave it off', 'The names go on being answered as they are stored.');
const AGAIN = againWay(FRONT_ON);

function later(plan: LegPlan): string[] {
  if (plan.isBack) return [];
  return [...frontingOf(plan)].flatMap(([name, state]) => (state === 'later' ? [name] : []));
}

function words(names: readonly string[]): string {
  const shown = names.slice(0, 3).map((name) => name.replace(/\.$/, ''));
  return `${shown.join(', ')}${names.length > 3 ? ` and ${names.length - 3} more` : ''}`;
}

/** Every authority that answers gave an address of the edge at the last look. */
function isFronted({ plan, seen, said }: Leg, name: string): boolean {
  const sights = plan.newServers
    .filter((one) => !said.aside.has(one.address))
    .flatMap((one) => seen.zones.find((zone) => zone.address === one.address)?.sightings.at(-1)?.value ?? []);
  const front = { ranges: plan.newHost!.fronts, stored: undefined };
  const edge = (key: string): boolean =>
    sights.every(({ sets }) => sets[key] !== undefined && sets[key].data.length > 0 && isFrontAnswer(front, sets[key].data));
  return sights.length > 0 && (edge(setKey(name, 'A')) || edge(setKey(name, 'AAAA')));
}
