import {
  AuthorityAnswer,
  Evidence,
  Instant,
  KnownPanel,
  MergedSet,
  Hint,
  Name,
  RRset,
  RegistrationLook,
  ServerAt,
  Sighting,
  Source,
  TYPE_CODES,
  Variation,
  Follower,
  againstGiven,
  counted,
  coverageOf,
  findingsOf,
  isOfPool,
  mergeSightings,
  negativeTtl,
  plain,
  printRdata,
  readSoa,
  rrsetToText,
  sameNameSet,
  targetsOutside,
} from '@wanderon/core';
import { Delegation, HttpWorld, NetError, limited, lookAtPages, lookUpRegistration } from '@wanderon/net';
import { observed } from '../network/network';
import { askAuthorities } from './askAuthorities';
import { askOutside } from './askOutside';
import { NewSurvey } from './survey.store';
import { endsOutside, resolver } from './whereNamesLead';
import { Given, KnownHost, SurveyWalker, SurveyWish, SurveyWorld } from './surveyWorld';
import { againstFile, takeInventory } from './takeInventory';
import { NamedZone, askNamed, namedWords, where } from './askNamed';
import { compareAnswers } from './compareAnswers';
import { zonesBelow } from './zonesBelow';

export interface TakenSurvey {
  readonly survey: NewSurvey;
  /** Servers that the parent delegates to, by address. */
  readonly authorities: readonly ServerAt[];
  readonly nameservers: readonly string[];
  /** The DNS host of the agency that is delegated to. */
  readonly host: KnownHost | undefined;
  /** TTLs in seconds, as the symbols of docs/calculations.md. */
  readonly P: number;
  readonly C: number;
  readonly N: number;
  readonly ds: boolean;
}

/** Nameservers of a zone, and addresses of one, that are asked: a parent could name thousands. */
const SERVERS = 30;
const ADDRESSES = 8;

/** Everything that can be known about a domain now. Throws a NetError where no server of the parent answers, or where cancelled. */
export async function takeSurvey(world: SurveyWorld, wished: SurveyWish, takenAt: () => Instant): Promise<TakenSurvey> {
  const { zone, signal } = wished;
  const domain = zone.toString().replace(/\.$/, '');
  const tell = (doing: string): void => wished.onProgress?.({ doing, asked: 0 });
  const walker = world.walker(signal);
  let inZone: (host: Name) => readonly string[] | undefined = () => undefined;
  const http = { ...world.http, resolve: resolver(walker, (host) => inZone(host) ?? host) };
  tell('Asking the servers of the parent');
  const registering = registrationOf(http, world.bootstrap, domain, signal);
  // It is awaited below; should the survey end before, nobody is left to hear of it.
  registering.catch(() => undefined);
  const delegation = await walker.delegation(zone);
  const nameservers = nameserversOf(delegation);
  const delegated = await addressesOf(
    walker,
    nameservers,
    delegation.referrals.flatMap(({ glue }) => glue),
    delegation.referrals.flatMap(({ siblings }) => siblings ?? []),
  );
  tell('Asking each nameserver');
  const asked = await askAuthorities(world.client, zone, delegated.servers, signal);
  const { answers } = asked;
  // Whose server answers for the zone before one that is only named.
  const ofHost = (all: readonly AuthorityAnswer[]): KnownHost | undefined =>
    wished.hosts.find((one) =>
      one.nameservers.some((name) =>
        all.some((answer) => sameNameSet([name], [answer.server]) && (!one.addresses?.length || one.addresses.includes(answer.address))),
      ),
    );
  const ofPool = (all: readonly AuthorityAnswer[]): KnownHost | undefined =>
    wished.hosts.find((one) => one.gives && all.some(({ server }) => !Name.parse(server).isAtOrBelow(zone) && isOfPool(server, one.gives!)));
  const authoritative = answers.filter((answer) => answer.authoritative);
  const host = ofHost(authoritative) ?? ofHost(answers) ?? ofPool(authoritative);
  const own = [...new Set(answers.flatMap((answer) => answer.nameservers.map((name) => name.toLowerCase())))];
  const unsaid = await addressesOf(
    walker,
    own.filter((name) => !nameservers.some((known) => known.toLowerCase() === name)),
  );
  const askedApart = await askAuthorities(
    world.client,
    zone,
    unsaid.servers.filter(({ address }) => !answers.some((answer) => answer.address === address)),
    signal,
  );
  const apart = askedApart.answers;
  const panels = await panelsOf(world, walker, wished, answers);
  const isServed = authoritative.length > 0;
  const { zone: named, problems: unnamed } = await askNamed(world, wished, walker, isServed);
  // What a server gives that somebody named is asked for like everything that is given.
  const wish = named ? { ...wished, given: { ...wished.given, sets: [...wished.given.sets, ...named.sets] } } : wished;
  const inventory = named && !isServed ? named.inventory : await takeInventory(world, wish, await host?.key(), asked);
  const merged = mergeSightings([...inventory.sightings, ...sightingsGiven(wished.given, isServed ? named : undefined)]);
  const sets = merged.map((one) => one.set);
  const { variations, edited, others, left, hints } = await compareAnswers(
    world,
    wish,
    merged,
    [...answers, ...apart],
    (address, name, type) => asked.heard(address, name, type) ?? askedApart.heard(address, name, type),
  );
  const { found: below, left: unasked } = await zonesBelow(world, wish, sets, answers, inventory.means.kind === 'transfer' && !wish.brief);
  tell('Following names to their addresses');
  // What is left out for want of time is told with the inventory.
  const isOver = wish.isEnough?.() === true;
  const ends = isOver ? [] : await endsOutside(walker, targetsOutside(zone, sets));
  const follower = new Follower(sets, ends);
  // What was answered is what visitors get; what was transferred may be answered otherwise, and is asked for.
  if (inventory.means.kind !== 'transfer') inZone = (name) => (name.isAtOrBelow(zone) ? follower.addressesOf(name) : undefined);
  tell('Looking at the website');
  const pages = !isOver && sets.some((set) => ADDRESSED.has(set.type)) ? await lookAtPages(http, pagesOf(zone, sets, wish.pages), signal) : [];
  // A sweep looks at very many: what is only said of a plan is asked once there is one.
  const outside = wish.brief || isOver ? null : await askOutside(walker, http, zone, sets, signal);
  const registration = await registering;
  const at = takenAt();
  const referrals = delegation.referrals;
  const findings = findingsOf({
    domain,
    parent: delegation.parent,
    referrals,
    authorities: [...answers, ...apart],
    unresolved: delegated.unresolved,
    ofNames: delegated.ofNames,
    registration,
    panels,
    below,
    takenAt: at,
  });
  const unsteady = [...variations].filter(([, one]) => one.varying !== undefined || one.fronted !== undefined);
  const fronted = unsteady.filter(([, one]) => one.fronted !== undefined).map(([{ set }]) => set);
  const file = fileInHand(wished.given, isServed ? named : undefined);
  const against = [
    ...(isServed ? [] : [named ? namedWords(named) : unserved(sets.length, nameservers.length > 0)]),
    ...(edited
      ? ['Somebody changed the zone while it was surveyed: what changed since stands in the comparison with it. Take it again to have it in the inventory.']
      : []),
    ...(isOver ? ['Neither where names outside the zone lead nor the website was looked at any more: the time for a survey was over.'] : []),
  ];
  const means =
    inventory.means.kind === 'questions' && file
      ? {
          ...inventory.means,
          file: {
            ...{ serial: file.serial, from: file.from },
            differing: againstFile(
              zone,
              sets,
              file.sets,
              fronted.map((set) => set.owner),
            ),
          },
        }
      : inventory.means;
  const coverage = coverageOf([...answers, ...apart, ...(named && !isServed ? named.answers : [])], means, {
    varying: unsteady.length - fronted.length,
    fronted: fronted.length,
    left,
    unasked,
    against: [
      ...inventory.views,
      ...against,
      ...(hints.length > 0
        ? [`${counted(hints.length, 'question is', 'questions are')} answered by some server and not from what was found; see the signs of missing records.`]
        : []),
      ...(walker.givenUp.size > 0
        ? [`${counted(walker.givenUp.size, 'name is', 'names are')} not followed to addresses: the way there would have taken too many questions.`]
        : []),
      ...(below.length > 0
        ? [
            `${counted(below.length, 'zone of its own stands', 'zones of their own stand')} below at the same server without being delegated: ${below
              .map(({ name }) => plain(name))
              .slice(0, 5)
              .join(', ')}.`,
          ]
        : []),
    ],
  });
  const published = referrals.filter((referral) => referral.ttl !== undefined);
  const soaSet = sets.find((set) => set.type === TYPE_CODES.SOA && set.owner.equals(zone));
  return {
    survey: {
      takenAt: at,
      parent: delegation.parent,
      coverage: { grade: coverage.grade, reasons: [...coverage.reasons.slice(0, 1), ...unnamed, ...coverage.reasons.slice(1)] },
      referrals: referrals.map(referralView),
      authorities: [...answers.map((answer) => authorityView(answer, true)), ...apart.map((answer) => authorityView(answer, false))],
      registration: registration ?? null,
      findings,
      sets: merged.map((one) => setView(one, variations.get(one), others.get(one) ?? [])),
      hints: [...inventory.hints, ...hints, ...againstGiven(zone, sets, wish.given.sets)].map(({ name, text, unread }: Hint) => ({
        owner: name.toString(),
        text,
        ...(unread !== undefined && { unread }),
        answer: null,
      })),
      ends: ends.map(({ target, addresses }) => ({ target: target.toString(), addresses: [...addresses] })),
      pages,
      outside,
      asked: inventory.asked,
    },
    authorities: delegated.servers,
    nameservers,
    host,
    P: Math.max(0, ...published.map((referral) => referral.ttl!)),
    C: sets.find((set) => set.type === TYPE_CODES.NS && set.owner.equals(zone))?.ttl ?? 0,
    N: soaSet ? negativeTtl(soaSet.ttl, readSoa(soaSet.data[0]!).minimum) : 0,
    ds: referrals.some((referral) => referral.ds.length > 0),
  };
}

/** What is held against what is served: the zone of a server that was named, then what was pasted. */
function sightingsGiven({ sets, serial }: Given, named: NamedZone | undefined): Sighting[] {
  const given = (from: Omit<Source, 'kind'>, had: readonly RRset[]): Sighting => ({ source: { kind: 'given', ...from }, sets: had, complete: false });
  return [
    ...(named ? [given({ ...named.from, serial: named.serial }, named.sets)] : []),
    ...(sets.length > 0 ? [given({ server: undefined, address: undefined, serial }, sets)] : []),
  ];
}

/** The zone with a serial that is held against what is served: as a server gave it that was named, or as a file has it. */
function fileInHand(
  { sets, serial }: Given,
  named: NamedZone | undefined,
): { readonly sets: readonly RRset[]; readonly serial: number; readonly from: string | undefined } | undefined {
  if (named?.serial !== undefined) return { sets: named.sets, serial: named.serial, from: where(named.from) };
  return serial === undefined ? undefined : { sets, serial, from: undefined };
}

function unserved(sets: number, isDelegated: boolean): string {
  const none = isDelegated ? 'No nameserver that the domain is delegated to answers' : 'The domain is delegated to no nameserver';
  return sets === 0 ? `${none}.` : `${none}: ${counted(sets, 'record set stands', 'record sets stand')} here as you gave ${sets === 1 ? 'it' : 'them'}.`;
}

const ADDRESSED: ReadonlySet<number> = new Set([TYPE_CODES.A, TYPE_CODES.AAAA, TYPE_CODES.CNAME]);

/** Every name that any server of the parent delegates to. Throws a NetError where none of them answered. */
export function nameserversOf(delegation: Delegation): string[] {
  if (delegation.referrals.every((referral) => referral.problem !== undefined)) throw new NetError('unreachable', `no server of ${delegation.parent} answers`);
  return [...new Set(delegation.referrals.flatMap((referral) => referral.nameservers))].sort();
}

async function registrationOf(
  http: HttpWorld,
  bootstrap: SurveyWorld['bootstrap'],
  domain: string,
  signal: AbortSignal | undefined,
): Promise<RegistrationLook | undefined> {
  try {
    const services = await bootstrap();
    return services && (await lookUpRegistration(http, services, domain, signal));
  } catch (error) {
    if (error instanceof NetError && error.kind !== 'cancelled') return { kind: 'unknown', problem: error.message };
    throw error;
  }
}

/**
 * Servers at every address: as their names resolve, and as the parent says. Whoever is led by the parent asks at its glue, also where
 * the zone itself knows nothing of it. What the parent says of names elsewhere is asked only where these resolve to nothing.
 */
async function addressesOf(
  walker: SurveyWalker,
  names: readonly string[],
  glue: Delegation['referrals'][number]['glue'] = [],
  siblings: NonNullable<Delegation['referrals'][number]['siblings']> = [],
): Promise<{ servers: ServerAt[]; unresolved: string[]; ofNames: { name: string; addresses: string[] }[] }> {
  const servers: ServerAt[] = [];
  const unresolved: string[] = [];
  const ofNames: { name: string; addresses: string[] }[] = [];
  for (const server of names.slice(0, SERVERS)) {
    const told = glue.flatMap((one) => (sameNameSet([one.name], [server]) ? [one.address] : []));
    const own = await walker.addressesOf(Name.parse(server));
    const followed = !walker.givenUp.has(Name.parse(server).key);
    if (followed) ofNames.push({ name: server, addresses: own });
    const last = own.length + told.length > 0 ? [] : siblings.flatMap((one) => (sameNameSet([one.name], [server]) ? [one.address] : []));
    const addresses = [...new Set([...own, ...told, ...last])].slice(0, ADDRESSES);
    if (addresses.length === 0 && followed) unresolved.push(server);
    for (const address of addresses) servers.push({ server, address });
  }
  return { servers, unresolved, ofNames };
}

/** At which hosts of the agency the zone stands, and which of them is delegated to and answers for it. */
async function panelsOf(
  { client }: SurveyWorld,
  walker: SurveyWalker,
  { zone, hosts, signal }: SurveyWish,
  answers: readonly AuthorityAnswer[],
): Promise<KnownPanel[]> {
  return limited(hosts, 4, async ({ name, nameservers: own }): Promise<KnownPanel> => {
    const delegated = answers.filter((answer) => own.some((server) => sameNameSet([answer.server], [server])));
    const live = delegated.some((answer) => answer.authoritative);
    if (delegated.length > 0 || own.length === 0) return { host: name, live, serves: live };
    const [address] = await walker.addressesOf(Name.parse(own[0]!));
    if (address === undefined) return { host: name, live, serves: false };
    const asked = await observed(client.ask({ address }, zone, TYPE_CODES.SOA, { signal, tries: 1 }));
    return { host: name, live, serves: asked.ok && asked.value.authoritative && asked.value.answers.some((record) => record.owner.equals(zone)) };
  });
}

/** The apex and `www` where they have addresses, and what the person listed. */
function pagesOf(zone: Name, sets: readonly RRset[], listed: readonly string[]): string[] {
  const names = [zone, zone.child('www')].filter((name) => sets.some((set) => set.owner.equals(name) && ADDRESSED.has(set.type)));
  return [...new Set([...names.map((name) => `${name.toString().replace(/\.$/, '')}/`), ...listed])];
}

function referralView(referral: Delegation['referrals'][number]): NewSurvey['referrals'][number] {
  const { server, address, nameservers, glue, ds } = referral;
  return {
    server,
    address,
    nameservers: [...nameservers],
    glue: [...glue],
    ds: [...ds],
    ttl: referral.ttl ?? null,
    dsTtl: referral.dsTtl ?? null,
    problem: referral.problem ?? null,
  };
}

function authorityView(answer: AuthorityAnswer, delegated: boolean): NewSurvey['authorities'][number] {
  return {
    ...answer,
    nameservers: [...answer.nameservers],
    delegated,
    serial: answer.serial ?? null,
    problem: answer.problem ?? null,
    tcpProblem: answer.tcpProblem ?? null,
  };
}

function setView({ set, evidence }: MergedSet, variation: Variation | undefined, others: readonly Evidence[]): NewSurvey['sets'][number] {
  const fronted = variation?.fronted ?? null;
  // A walk rests on answers as well.
  const known = evidence.find(({ source, seen }) => seen && (source.kind === 'transfer' || source.kind === 'given'));
  return {
    ...rrsetToText(set),
    evidence: [...evidence, ...others].map((one) => evidenceView(set, one)),
    varying: variation?.varying ?? null,
    restless: variation?.restless ?? false,
    fronted,
    stored: fronted === null || !known ? null : known.seen!.data.map((data) => printRdata(set.type, data)),
  };
}

function evidenceView(set: RRset, { source, because, seen, agrees }: Evidence): NewSurvey['sets'][number]['evidence'][number] {
  return {
    kind: source.kind,
    server: source.server ?? null,
    address: source.address ?? null,
    serial: source.serial ?? null,
    because: because ?? null,
    ttl: seen?.ttl ?? null,
    data: seen && !agrees ? seen.data.map((data) => printRdata(set.type, data)) : null,
    absent: seen === undefined,
  };
}
