import { RRset } from '../dns/record';
import { HostKnowledge } from '../rebuild/host';
import { STARTING_TTL, proposeRulings } from '../rebuild/propose';
import { proposeRepoint } from '../rebuild/proposeRepoint';
import { presentWeb } from '../rebuild/presentWeb';
import { Ruling, isChanging } from '../rebuild/ruling';
import { plain } from '../survey/words';
import { eff } from '../timetable/eff';
import { Derived, Instant, instantTerm, secondsTerm } from '../timetable/instant';
import { legTimes } from '../timetable/legTimes';
import { Assumptions, LegTimes } from '../timetable/times';
import { Gap, gapOf, rebuildsZone } from './account';
import { isFirstUse } from './firstUse';
import { LegPlan } from './plan';
import { saidBy } from './said';
import { Seen } from './seen';
import { WayId, legKindOf } from './way';

/** What the choice between the ways rests on: the first survey of the domain, and what is known of its hosts. */
export interface WaysInput {
  readonly plan: LegPlan;
  readonly seen: Pick<Seen, 'parent' | 'zones'>;
  readonly found: readonly RRset[];
  /** What the survey can claim of the inventory. */
  readonly grade: 'whole' | 'likely whole' | 'partial';
  readonly assumed: Assumptions;
  readonly now: Instant;
  /** Seconds between looks. */
  readonly every: number;
  /** The new web host, where it is known; null: the website stays where it is. Undefined: nobody said yet. */
  readonly newWeb?: HostKnowledge | null | undefined;
  /** The proposals with what was given for single names. */
  readonly withGiven?: (rulings: readonly Ruling[]) => readonly Ruling[];
}

/** One way as it would be for this domain. Durations in seconds. */
export interface ComparedWay {
  readonly way: WayId;
  readonly title: string;
  /** What changes hands, who does it, and what can be edited where meanwhile. */
  readonly changes: string;
  readonly who: string;
  readonly meanwhile: string;
  /** Why it is not open here; null where it is. */
  readonly ruledOut: string | null;
  /** What speaks against it. */
  readonly against: readonly string[];
  /** Record sets that change their values. */
  readonly sets: number;
  /** From now until the cutover is sound, if the TTLs are lowered now; and from the cutover until finished everywhere. Infinity: no bound. */
  readonly untilSound: number;
  readonly untilSettled: Derived;
  readonly settling: number;
  /** Until the old values are back everywhere, once they are set back; and where the nameservers are set back, at the least. */
  readonly back: number;
  readonly backWords: string;
  readonly delegationBack: number | null;
}

export interface WaysCompared {
  readonly ways: readonly ComparedWay[];
  readonly recommended: WayId | null;
  readonly reason: string;
  /** Where the website is today, as the domain itself and `www` lead: addresses, or the name of an alias target. Empty: nowhere. */
  readonly website: readonly string[];
}

/** Stand-ins for hosts that are not chosen yet: what the times ask of them is that they are others. Their names are ones that a zone may hold. */
const OTHER_SERVER = { server: 'new-dns-host.invalid.', address: 'at the new DNS host' };
const OTHER_WEB: HostKnowledge = {
  name: 'the new web host',
  nameservers: [],
  addresses: ['192.0.2.0', '2001:db8::'],
  aliasTarget: 'new-web-host.invalid.',
  requires: [],
};

/**
 * The ways open to a domain, held against each other before any host is chosen: their times are those that the leg would have
 * (`legTimes`), lowered now and cut over as soon as that is sound. In steps, between which others have their turn: with sixty
 * thousand record sets all of it takes seconds.
 */
export function* compareWays(input: WaysInput): Generator<undefined, WaysCompared> {
  const present = presentWeb(input.plan.zone, input.found, [], input.plan.fronted);
  const website = [...(present?.addresses ?? []), ...(present?.aliasTarget ? [plain(present.aliasTarget)] : [])];
  yield;
  const whole = yield* nameservers(input);
  yield;
  const fast = yield* repoint(input);
  yield;
  // The zone as it is, at another DNS host or in another account: two ways hold it against their own times.
  const asItIs = proposeRulings(input.plan.zone, input.found, { oldWeb: input.plan.oldWeb, newDns: named('the DNS host'), newWeb: undefined });
  yield;
  const first = nameserversFirst(input, whole, fast, asItIs);
  yield;
  return { ...judged(input, [whole, fast, first, websiteFirst(whole, fast), anotherAccount(input, asItIs)]), website };
}

function judged(input: WaysInput, ways: readonly [ComparedWay, ComparedWay, ...ComparedWay[]]): Omit<WaysCompared, 'website'> {
  const [whole, fast] = ways;
  if (isFirstUse(input.plan)) return firstUse(whole, ways.slice(1));
  const open = ways.filter((one) => one.ruledOut === null);
  if (open.length === 0) return { ways, recommended: null, reason: 'No way is open before what rules them out is set right.' };
  if (open.length === 1) return { ways, recommended: open[0]!.way, reason: 'It is the only one that is open here.' };
  // A way that changes nothing takes the website nowhere.
  if (fast.sets === 0) return { ways, recommended: whole.way, reason: 'Neither the domain nor www leads anywhere now: in place there is nothing to change.' };
  if (input.grade === 'partial')
    return { ways, recommended: fast.way, reason: 'The inventory is incomplete: where the records stay, one that nobody found cannot be lost.' };
  if (hasDs(input)) return { ways, recommended: fast.way, reason: 'The zone is signed: where it stays, it stays signed, and nobody has to change the DS.' };
  return {
    ways,
    recommended: whole.way,
    reason: `The inventory is ${input.grade === 'whole' ? 'complete' : 'probably complete'} and the zone is not signed: nothing needs to stay at the old host. Where that host is kept, changing records there is quicker.`,
  };
}

/** A domain to which nothing was delegated before: there is nothing that could be changed where it is. */
function firstUse(whole: ComparedWay, others: readonly ComparedWay[]): Omit<WaysCompared, 'website'> {
  const first: ComparedWay = {
    ...whole,
    title: 'Delegate it for the first time',
    changes: 'A zone is made at the DNS host from what the web host needs. Somebody sets the nameservers at the registrar.',
    who: 'Where Wanderon has a key it writes the zone itself, else somebody types it from a sheet.',
    meanwhile: 'Nobody finds anything at the domain until the nameservers are set.',
    against: [],
    delegationBack: null,
  };
  const rest = others.map((one) => ({ ...one, ruledOut: 'Nothing is delegated yet: there is nothing to change where it is.' }));
  return { ways: [first, ...rest], recommended: 'nameservers', reason: 'It is the only one that is open here.' };
}

function* nameservers(input: WaysInput): Generator<undefined, ComparedWay> {
  const { plan, found, grade } = input;
  const newWeb = input.newWeb === undefined ? OTHER_WEB : (input.newWeb ?? undefined);
  const proposed = proposeRulings(plan.zone, found, { oldWeb: plan.oldWeb, newDns: named('the new DNS host'), newWeb, fronted: plan.fronted });
  yield;
  const rulings = given(input, proposed);
  yield;
  const ds = hasDs(input);
  const times = timesOf(input, 'nameservers', rulings, { newServers: [OTHER_SERVER], newNameservers: [OTHER_SERVER.server] });
  const referral = Math.max(0, ...input.seen.parent.flatMap((one) => one.sightings.map(({ value }) => value.ttl)));
  return {
    way: 'nameservers',
    title: 'Change the nameservers',
    changes: 'All records are set up at the new DNS host. Then somebody changes the nameservers at the registrar.',
    who: `Where Wanderon has a key for the new DNS host it writes the zone itself, else somebody types it from a sheet.${plan.oldHost?.keyed ? '' : ' TTLs are lowered by hand at the old host, or not at all.'}`,
    meanwhile: 'Once the new zone is written, whoever changes a record at the old host has to change it at the new one too.',
    ruledOut: plan.scope.kind === 'names' ? 'This move is about some names; nameservers change for all of them.' : null,
    against: [
      ...(grade === 'whole'
        ? []
        : [
            grade === 'partial'
              ? 'The inventory is incomplete: a record that nobody found stays behind.'
              : 'The inventory is probably complete, which is no proof: a record that nobody found stays behind.',
          ]),
      ...(ds ? ['The zone is signed: the DS is taken out first and put back last, and the zone is unsigned in between.'] : []),
    ],
    ...times,
    back: eff(STARTING_TTL, input.assumed.floor),
    backWords: 'the records are set back at the new host, whose TTLs are low',
    delegationBack: eff(referral, input.assumed.floor),
  };
}

function* repoint(input: WaysInput): Generator<undefined, ComparedWay> {
  const { plan, found } = input;
  const dns = named(plan.oldHost?.name ?? 'the DNS host');
  const newWeb = input.newWeb ?? OTHER_WEB;
  const proposed = proposeRepoint(plan.zone, found, { scope: plan.scope, oldWeb: plan.oldWeb, dns, newWeb, fronted: plan.fronted });
  yield;
  const rulings = given(input, proposed);
  yield;
  const times = timesOf(input, 'repoint', rulings, { newServers: plan.oldServers, newNameservers: plan.oldNameservers });
  const where = plan.oldHost?.name ?? 'the DNS host';
  return {
    way: 'repoint',
    title: plan.scope.kind === 'names' ? 'Change the records of these names where they are' : 'Change the website’s records where they are',
    changes: `${times.sets === 0 ? 'No record changes' : times.sets === 1 ? 'One record changes' : `${times.sets} records change`} at ${where}. Everything else stays, the nameservers too.`,
    who: plan.oldHost?.keyed
      ? 'Wanderon has a key and changes them itself, once you say so.'
      : `Somebody with a login at ${where} types them from a sheet; Wanderon reads them back.`,
    meanwhile: `All other records are changed at ${where} as before.`,
    ruledOut: null,
    against: [
      `The domain stays with ${where}: its contract has to be kept.`,
      ...(plan.scope.kind === 'whole' && times.sets === 0
        ? ['Neither the domain nor www leads anywhere now: what is to lead to the new web host has to be added by hand.']
        : []),
    ],
    ...times,
    back: eff(STARTING_TTL, input.assumed.floor),
    backWords: 'the records are set back, while their TTLs are low',
    delegationBack: null,
  };
}

/** Two legs, one after the other; the second waits for the first to be settled, and its own TTLs are lowered then. */
function inTurn(first: ComparedWay, second: ComparedWay): Pick<ComparedWay, 'sets' | 'untilSound' | 'untilSettled' | 'settling' | 'ruledOut'> {
  const more = second.untilSound + second.settling;
  return {
    sets: first.sets + second.sets,
    untilSound: first.untilSound,
    untilSettled: {
      ...first.untilSettled,
      at: first.untilSettled.at + more,
      formula: `${first.untilSettled.formula} + w + s`,
      terms: [
        ...first.untilSettled.terms,
        secondsTerm('w', 'the second leg: from its lowering until it is sound', second.untilSound),
        secondsTerm('s', 'the second leg: from its cutover until finished everywhere', second.settling),
      ],
    },
    settling: first.settling + more,
    ruledOut: first.ruledOut ?? second.ruledOut,
  };
}

function nameserversFirst(input: WaysInput, whole: ComparedWay, fast: ComparedWay, rulings: readonly Ruling[]): ComparedWay {
  // What is kept as it is has nothing to run out but the delegation.
  const first = { ...whole, ...timesOf(input, 'nameservers', rulings, { newServers: [OTHER_SERVER], newNameservers: [OTHER_SERVER.server] }) };
  return {
    ...first,
    ...inTurn(first, fast),
    way: 'nameservers first',
    title: 'Nameservers first, website later',
    changes: 'First the domain goes to the new DNS host, with all records as they are. Later the website’s records are changed there.',
    who: 'As with changing the nameservers. Afterwards Wanderon changes the records itself where it has a key.',
    meanwhile: 'The website stays where it is until the second stage.',
    against: [...whole.against, 'Two stages: each is watched until it is finished.'],
  };
}

function websiteFirst(whole: ComparedWay, fast: ComparedWay): ComparedWay {
  return {
    ...fast,
    ...inTurn(fast, whole),
    way: 'website first',
    title: 'Website first, nameservers after',
    changes: 'First the website’s records are changed where they are. Then the domain goes to the new DNS host with all its records.',
    meanwhile: 'The website is live at its new place long before the nameservers change.',
    against: [...whole.against, 'Two stages: each is watched until it is finished.'],
  };
}

/** Nothing is settled before everybody who asks anew is answered again. */
function afterGap(cutover: Instant, gap: Gap): Pick<ComparedWay, 'settling' | 'untilSettled'> {
  const terms = [instantTerm('t', 'the cutover', cutover), ...gap.terms];
  const follows = 'whoever asked anew in between found nothing';
  return { settling: gap.seconds, untilSettled: { at: cutover + gap.seconds, formula: `t + ${gap.formula}`, terms, follows } };
}

/** The zone as it is, typed into another account behind the same servers; nothing at the registrar changes. */
function anotherAccount(input: WaysInput, rulings: readonly Ruling[]): ComparedWay {
  const { plan, grade } = input;
  const where = plan.oldHost?.name ?? 'the DNS host';
  const times = timesOf(input, 'another account', rulings, { newServers: plan.oldServers, newNameservers: plan.oldNameservers });
  const one = plan.oldHost?.habits?.accounts ?? 'unknown';
  // In two accounts at once nothing is unanswered; where that is not known, nor is this.
  const gap = gapOf({ plan: { ...plan, kind: 'repoint', account: true, newHost: plan.oldHost, rulings }, state: { every: input.every } });
  return {
    way: 'another account',
    title: 'Another account behind the same nameservers',
    changes: 'All records are typed into another account of the same DNS host, which then takes the domain over. Nothing changes at the registrar.',
    who: `Somebody with a login to each of the two accounts at ${where}. Wanderon writes the sheet and reads every record back once the other account is live.`,
    meanwhile: 'Whoever changes a record in the old account after the sheet was written has to change it in the other one too.',
    ruledOut: plan.scope.kind === 'names' ? 'This move is about some names; an account holds all of them.' : null,
    against: [
      ...(one === 'several'
        ? []
        : [
            gap
              ? `${where} holds a domain in one account at a time: between the two, whoever asks anew finds nothing for about ${Math.ceil(gap.seconds / 60)} min.`
              : `Where ${where} holds a domain in one account at a time, whoever asks anew in between finds nothing.`,
          ]),
      'No answer shows what is typed before the other account is live.',
      ...(grade === 'whole'
        ? []
        : [
            grade === 'partial'
              ? 'The inventory is incomplete: a record that nobody found stays behind.'
              : 'The inventory is probably complete, which is no proof: a record that nobody found stays behind.',
          ]),
      ...(hasDs(input) ? ['The zone is signed: the other account signs with keys of its own, so the DS is taken out first.'] : []),
    ],
    ...times,
    ...(gap && gap.seconds > times.settling ? afterGap(input.now + times.untilSound, gap) : {}),
    back: eff(STARTING_TTL, input.assumed.floor),
    backWords: 'the records are set back in the account that is live then',
    delegationBack: null,
  };
}

/** Rows from which times follow: what changes, and what may answer in the place of something that does. Most of a large zone is neither. */
function bearsOnTimes(row: Ruling): boolean {
  return isChanging(row) || row.type === 'NS' || row.type === 'SOA' || row.type === 'DNAME' || row.owner.startsWith('*.');
}

function timesOf(
  { plan, seen, assumed, now }: WaysInput,
  way: WayId,
  rulings: readonly Ruling[],
  to: Pick<LegPlan, 'newServers' | 'newNameservers'>,
): Pick<ComparedWay, 'sets' | 'untilSound' | 'untilSettled' | 'settling'> {
  const asked: LegPlan = { ...plan, kind: legKindOf(way), account: way === 'another account', chosen: true, rulings: rulings.filter(bearsOnTimes), ...to };
  const planned = (plannedSwitch: Instant | null): LegTimes => {
    const said = saidBy([{ id: 1, kind: 'approve', subject: '', value: { plannedSwitch }, person: null, at: now, undoes: null }]);
    return legTimes({ plan: asked, seen, said, assumed, now, turns: plan.oldHost?.keyed ?? false });
  };
  const sound = Math.max(planned(null).earliestSwitch.at, signedSound(asked, seen, assumed, now));
  const times = planned(sound);
  return {
    sets: rulings.filter(isChanging).length,
    untilSound: Math.max(0, sound - now),
    untilSettled: times.last,
    settling: Math.max(0, times.last.at - Math.max(now, sound)),
  };
}

/** A DS taken out now keeps the switch unsound for eff(D) + eff(K) (RFC 6781 §4.3.4). */
function signedSound(plan: LegPlan, seen: WaysInput['seen'], { floor, parentAllowance }: Assumptions, now: Instant): Instant {
  if (!rebuildsZone(plan)) return now;
  const D = Math.max(0, ...seen.parent.flatMap((one) => one.sightings.map(({ value }) => (value.ds.length > 0 ? value.dsTtl : 0))));
  return D === 0 ? now : now + parentAllowance + eff(D, floor) + eff(plan.keysTtl ?? 0, floor);
}

/** What was given for names is part of every way in which the website moves. */
function given({ withGiven }: WaysInput, rulings: readonly Ruling[]): readonly Ruling[] {
  return withGiven ? withGiven(rulings) : rulings;
}

function hasDs({ seen }: WaysInput): boolean {
  return seen.parent.some((one) => (one.sightings.at(-1)?.value.ds.length ?? 0) > 0);
}

function named(name: string): HostKnowledge {
  return { name, nameservers: [], addresses: [], aliasTarget: undefined, requires: [] };
}
