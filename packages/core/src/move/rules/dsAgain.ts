import { plain } from '../../survey/words';
import { DsAgain, dsAgain as dsAgainOf } from '../../timetable/dsAgain';
import { rebuildsZone } from '../account';
import { Leg } from '../leg';
import { LegPlan } from '../plan';
import { StepRule, StepStanding, stands } from './rule';
import { againWay, leaveWay } from './personStep';
import { hadDs, hasDs } from './dsGone';

const ID = 'ds-again';

/** The zone was signed with a DS, and is to be so again: the new host signs it, or is not known not to. */
export function signsAgain(plan: LegPlan, leg: Pick<Leg, 'seen'>): boolean {
  return rebuildsZone(plan) && plan.newHost?.habits?.signs !== 'no' && hadDs(leg);
}

/** A DS of the new keys goes to the parent when nobody can remember anything unsigned, nor be led to servers without them. */
export const dsAgain: StepRule = {
  id: ID,
  chapter: 'watch',
  title: 'Put a DS in at the registrar again',
  label: 'DS again',
  after: ['settle'],
  by: 'person',
  counts: 'seen',
  applies: signsAgain,
  standing: (leg) => {
    const { plan, seen, said, now } = leg;
    const again = leg.once('ds again', () => dsAgainOf({ plan, seen, said, times: leg.times, assumed: leg.state.assumed, now }));
    const left = said.left.get(ID);
    // What is wrong is said, whoever has left it.
    const alarm = (leg.times.t0 !== undefined && hasDs(leg) && alarmWords(again)) || null;
    if (left) return stands('left', { doneAt: left.at, decision: left, text: alarm, ways: [againWay(ID)] });
    // What is at the parent before the switch is the old one.
    return leg.times.t0 === undefined ? stands('waiting') : hasDs(leg) ? withDs(leg, again) : withoutDs(leg, again);
  },
};

const LEAVE = leaveWay(ID, 'Leave it unsigned', 'Nothing that resolvers are told of the domain can be checked.');

function withoutDs(leg: Leg, again: DsAgain): StepStanding {
  const { tn, earliest } = again;
  const host = leg.plan.newHost?.name ?? 'the new host';
  if (!tn || !earliest) return stands('ready', { text: `Have ${host} sign the zone first, without telling the parent: ${lackWords(again)}.`, ways: [LEAVE] });
  if (earliest.at === Infinity)
    return stands('ready', {
      text: 'No bound is known for resolvers that renew the delegation from the old servers’ own answers: those that check signatures may fail once the DS is there.',
      since: tn.firstNew,
      ways: [LEAVE],
    });
  if (earliest.at > leg.now)
    return stands('due', {
      dueAt: earliest.at,
      since: tn.firstNew,
      text: 'Until then somebody may remember an answer without signatures, or be led to servers without these keys: a DS would make that fail.',
      ways: [LEAVE],
    });
  return stands('ready', { since: tn.firstNew, text: `Every server of ${host} serves keys: take the DS from there.`, ways: [LEAVE] });
}

/** What of a signed zone was not seen yet at the new servers. */
function lackWords({ keyless, bare }: DsAgain): string {
  if (keyless.length > 0) return `${keyless.map(plain).join(', ')} ${keyless.length === 1 ? 'serves' : 'serve'} no keys`;
  return bareWords(bare) ?? (bare.length > 0 ? 'whether its answers bear signatures is looked at next' : 'Its keys were not seen');
}

/** Sets, or denials, that are told of. */
const TOLD = 3;

function bareWords(bare: DsAgain['bare']): string | undefined {
  const told = bare.flatMap(({ server, what = [] }) => (what.length > 0 ? [`${plain(server)} gives ${what.slice(0, TOLD).map(plain).join(', ')}`] : []));
  return told.length > 0 ? `${told.join('; ')} without a signature by its keys that holds now` : undefined;
}

/** Why resolvers that check signatures fail now that a DS is there. */
function alarmWords({ strange, bare }: DsAgain): string | undefined {
  if (strange.length > 0) return strangeWords(strange);
  const unsigned = bareWords(bare);
  return unsigned && `${unsigned}: resolvers that check signatures find nothing there.`;
}

function withDs(leg: Leg, again: DsAgain): StepStanding {
  const { earliest } = again;
  const heard = leg.seen.parent.filter((one) => one.sightings.length > 0 && !leg.said.aside.has(one.address));
  const alarm = alarmWords(again);
  if (alarm) return stands('stopped', { text: alarm, ways: [LEAVE] });
  const lacking = heard.filter((one) => (one.sightings.at(-1)?.value.ds.length ?? 0) === 0);
  if (lacking.length > 0)
    return stands('doing', { text: `${lacking.map((one) => plain(one.server)).join(', ')} ${lacking.length === 1 ? 'has' : 'have'} no DS yet.` });
  if (earliest && earliest.at > leg.now)
    return stands('doing', {
      dueAt: earliest.at,
      text: 'It came early: until then resolvers that check signatures may fail where they remember an answer without them.',
    });
  const text = again.unknown && `The DS is of ${again.unknown}, which resolvers in use do not know: to those the domain stays unsigned.`;
  return stands('done', { text: text ?? null, doneAt: Math.max(...heard.map((one) => one.sightings.findLast(({ value }) => value.ds.length > 0)!.first)) });
}

function strangeWords(servers: readonly string[]): string {
  return `${servers.map(plain).join(', ')} ${servers.length === 1 ? 'publishes' : 'publish'} a DS that stands for no key of the new servers: resolvers that check signatures find nothing. Take it out at the registrar, or have the zone signed with its key.`;
}
