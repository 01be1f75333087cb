import { Name } from '../dns/name';
import { HostKnowledge } from '../rebuild/host';
import { Ruling } from '../rebuild/ruling';
import { PageLook } from '../survey/website';
import { sameNameSet } from '../watch/verdict';
import { GivenItem, JudgedItem } from './givenItem';
import { GivenPlaces, givenPlaces } from './givenPlaces';
import { GivenSubject, judgeGiven } from './judgeGiven';
import { planGiven } from './planGiven';
import { dnsPlaceName, webPlaceName } from './placeNames';
import { SiteName, namesSaid, siteNames } from './siteNames';
import { isLead } from '../rebuild/leads';

/** A host that is known, as what was given is held against it. */
export interface KnownPlace {
  readonly id: string;
  readonly role: string;
  readonly nameservers: readonly string[];
  readonly addresses: readonly string[];
  readonly aliasTarget: string | null;
}

/** What follows from what was given for a leg, and from what a person said of it. */
export interface GivenFront {
  readonly items: readonly JudgedItem[];
  readonly places: GivenPlaces;
  /** New nameservers were given, or those that the domain has already. */
  readonly givesServers: 'new' | 'same' | 'none';
  readonly names: readonly SiteName[];
  /** The new web host with what was given for this site; undefined where nothing was. */
  readonly newWeb: HostKnowledge | undefined;
  /** The proposals of a leg with what was given: whether the website moves in it, and whether the names that show it go by their ticks. */
  readonly withGiven: (rulings: readonly Ruling[], leg: { readonly webMoves: boolean; readonly byTicks: boolean }) => Ruling[];
}

export interface FrontInput extends GivenSubject {
  readonly given: readonly GivenItem[];
  /** What people said of names, below the domain. */
  readonly said: Readonly<Record<string, boolean>>;
  readonly pages: readonly PageLook[];
  readonly oldWeb: readonly HostKnowledge[];
  /** A web host that somebody described: it was chosen, or what was given is its own. */
  readonly knownWeb: (places: GivenPlaces) => HostKnowledge | undefined;
  /** The DNS host of then takes an alias at the domain itself. */
  readonly apexAlias?: (places: GivenPlaces) => boolean;
}

/** Works out the front door of a leg: what each given thing is for, which names go along, and the plan that follows. */
export function frontOf(input: FrontInput): GivenFront {
  const { zone, scope, found, fronted, pages, oldWeb } = input;
  const items = judgeGiven(input.given, input);
  const places = givenPlaces(items, zone);
  const newWeb = webOf(places, input.knownWeb(places));
  const apexAlias = input.apexAlias?.(places) ?? false;
  const said = new Map(Object.entries(input.said).map(([name, moves]) => [Name.parse(name, zone).toString().toLowerCase(), moves]));
  const given = new Set(places.sets.filter(({ type }) => isLead(type)).map(({ owner }) => owner.toLowerCase()));
  let known: SiteName[] | undefined;
  // Of sixty thousand names nobody asks where no plan is looked at.
  const names = (): readonly SiteName[] =>
    (known ??= siteNames({ zone, scope, found, pages, oldWeb, newWeb, apexAlias, ...(fronted && { fronted }), said, given }));
  const same = places.nameservers.length > 0 && sameNameSet(places.nameservers, input.nameservers);
  return {
    items,
    places,
    givesServers: places.nameservers.length === 0 ? 'none' : same ? 'same' : 'new',
    get names() {
      return names();
    },
    newWeb,
    withGiven: (rulings, { webMoves, byTicks }) =>
      planGiven(zone, rulings, {
        newWeb: webMoves ? newWeb : undefined,
        sets: webMoves ? places.sets : places.sets.filter(({ type }) => !isLead(type)),
        names: webMoves && byTicks && scope.kind === 'whole' ? namesSaid(names(), zone) : new Map(),
      }),
  };
}

/** What is known of the web host with what was given for this site: of several addresses those that were given, and its records. */
function webOf({ web, requires }: GivenPlaces, known: HostKnowledge | undefined): HostKnowledge | undefined {
  if (!web) return known;
  if (!known) return { name: webPlaceName(web), nameservers: [], addresses: web.addresses, aliasTarget: web.aliasTarget, requires, isGiven: true };
  const more = requires.filter((need) => !known.requires.some((one) => one.owner === need.owner && one.type === need.type && one.data === need.data));
  return {
    ...known,
    addresses: web.addresses.length > 0 ? web.addresses : known.addresses,
    aliasTarget: web.aliasTarget ?? known.aliasTarget,
    requires: [...known.requires, ...more],
    isGiven: true,
  };
}

/** The host that what was given belongs to: a DNS host by all its nameservers, a web host by its alias target or one of its addresses. */
export function placeOfGiven<H extends KnownPlace>(hosts: readonly H[], role: 'dns' | 'web', { nameservers, web }: GivenPlaces): H | undefined {
  if (role === 'dns') return nameservers.length === 0 ? undefined : hosts.find((host) => host.role === 'dns' && sameNameSet(host.nameservers, nameservers));
  if (!web) return undefined;
  return hosts.find(
    (host) =>
      host.role === 'web' &&
      ((web.aliasTarget !== undefined && host.aliasTarget?.toLowerCase() === web.aliasTarget) || host.addresses.some((one) => web.addresses.includes(one))),
  );
}

/** A place of which nobody knows more than what was given, as it is kept with the move. */
export function placeFromGiven(role: 'dns' | 'web', { nameservers, web }: GivenPlaces): Omit<KnownPlace, 'id' | 'role'> & { readonly name: string } {
  if (role === 'dns') return { name: dnsPlaceName(nameservers), nameservers, addresses: [], aliasTarget: null };
  return { name: webPlaceName(web!), nameservers: [], addresses: web!.addresses, aliasTarget: web!.aliasTarget ?? null };
}
