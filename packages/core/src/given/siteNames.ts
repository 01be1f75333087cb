import { Name } from '../dns/name';
import { RRset, RRsetText, rrsetToText } from '../dns/record';
import { TYPE_CODES } from '../dns/typeNames';
import { Scope, chosenNames } from '../move/scope';
import { PageLook, hostOf, siteHosts } from '../survey/website';
import { plain } from '../survey/words';
import { HostKnowledge } from '../rebuild/host';
import { isSpelling } from '../rebuild/checks/leadsThere';
import { isLead } from '../rebuild/leads';
import { otherUses, usesWords } from '../rebuild/otherUses';
import { presentWeb } from '../rebuild/presentWeb';
import { Ruling, isHostsOwn } from '../rebuild/ruling';

/** A name that shows the website today, or leads where it does. */
export interface SiteName {
  /** Below the domain; `@` for the domain itself. */
  readonly owner: string;
  /** What it leads to now, and by the plan. */
  readonly now: readonly string[];
  readonly then: readonly string[];
  /** It goes with the website. */
  readonly moves: boolean;
  /** False: it follows another name, and goes where that one goes. */
  readonly isFree: boolean;
  /** Why it is here, or why it stays. */
  readonly why: string;
}

export interface SiteNamesInput {
  readonly zone: Name;
  readonly scope: Scope;
  readonly found: readonly RRset[];
  readonly pages: readonly PageLook[];
  readonly oldWeb: readonly HostKnowledge[];
  readonly newWeb: HostKnowledge | undefined;
  /** The DNS host takes an alias at the domain itself. */
  readonly apexAlias?: boolean;
  readonly fronted?: readonly RRsetText[];
  /** What people said of names, in lower case with final dot. */
  readonly said: ReadonlyMap<string, boolean>;
  /** Names for which a value was given. */
  readonly given: ReadonlySet<string>;
}

/**
 * The names that show the website today, each with whether it goes along: those that lead where the domain itself and `www` lead, by address,
 * by alias, or with the same page at another address. A name that something else uses stays unless a person says otherwise; so does one for
 * which the new place gave nothing.
 */
export function siteNames({ zone, scope, found, pages, oldWeb, newWeb, apexAlias = false, fronted = [], said, given }: SiteNamesInput): SiteName[] {
  const present = presentWeb(zone, found, [], fronted);
  const fronts = new Set(fronted.flatMap(({ data }) => data));
  const addresses = new Set(
    [...[present, ...oldWeb].flatMap((host) => host?.addresses ?? []), ...addressesSeen(zone, pages)].filter((one) => !fronts.has(one)),
  );
  const aliases = [present, ...oldWeb].flatMap((host) => (host?.aliasTarget ? [Name.parse(host.aliasTarget)] : []));
  const leadsThere = (target: Name | undefined, now: readonly string[]): boolean =>
    target ? aliases.some((alias) => target.isAtOrBelow(alias)) : now.some((one) => addresses.has(one));
  const uses = otherUses(zone, found);
  const same = samePages(zone, pages);
  const chosen = scope.kind === 'names' ? new Set(chosenNames(scope.names).map((name) => `${name}.`)) : undefined;
  const rows = new Map<string, Row>();
  for (const set of found) {
    const { type, data } = leadOf(set);
    if (type === undefined) continue;
    const key = set.owner.toString().toLowerCase();
    const row = rows.get(key) ?? { name: set.owner, now: [], types: new Set() };
    row.now.push(...data);
    row.types.add(type);
    rows.set(key, row);
  }
  const names: SiteName[] = [];
  const follows: { readonly name: Name; readonly row: Row }[] = [];
  const make = (name: Name, { now }: Row, moves: boolean, why: string): void => {
    const word = said.get(name.toString().toLowerCase());
    names.push({ owner: name.relativeTo(zone), now, then: [], moves: word ?? moves, isFree: true, why });
  };
  /** A name that shows the website, `why` so: whether it goes along. */
  const judge = (name: Name, row: Row, why: string): void => {
    const other = uses(name);
    if (other.length > 0) make(name, row, false, `has another use: ${usesWords(other)}`);
    else if (newWeb && !hasValue(newWeb, name.equals(zone) && !apexAlias, row.types))
      make(name, row, false, `no ${name.equals(zone) ? 'address' : 'value'} was given for it`);
    else make(name, row, true, why);
  };
  for (const [key, row] of rows) {
    const { name, now, types } = row;
    const target = types.has('CNAME') ? Name.parse(now[0]!) : undefined;
    if (chosen) {
      if (chosen.has(key)) make(name, row, true, 'the name of this move');
    } else if (given.has(key)) make(name, row, true, 'a value was given for it');
    else if (target?.isAtOrBelow(zone)) follows.push({ name, row });
    // Where a front hides their addresses, the domain and `www` are the website all the same.
    else if (leadsThere(target, now) || isSpelling(zone, name)) judge(name, row, 'leads to the website');
    else if (same.has(plain(key))) judge(name, row, 'shows the same page');
  }
  // What is an alias of another name of the zone goes where that one goes.
  const moving = new Map(names.map((name) => [Name.parse(name.owner, zone).key, name.moves]));
  const followed = ({ now }: Row): boolean | undefined =>
    chainOf(zone, Name.parse(now[0]!), rows)
      .map((key) => moving.get(key))
      .find((one) => one !== undefined);
  // One server shows a site by each name: the page of the name that it follows says nothing of its own.
  for (const { name, row } of follows) {
    if (followed(row) !== undefined || !same.has(plain(name.toString().toLowerCase()))) continue;
    judge(name, row, 'shows the same page');
    moving.set(name.key, names.at(-1)!.moves);
  }
  for (const { name, row } of follows) {
    const moves = moving.has(name.key) ? undefined : followed(row);
    if (moves !== undefined) names.push({ owner: name.relativeTo(zone), now: row.now, then: [], moves, isFree: false, why: `follows ${plain(row.now[0]!)}` });
  }
  return names;
}

/** What a name leads to, in presentation form, and by which types. */
interface Row {
  readonly name: Name;
  readonly now: string[];
  readonly types: Set<string>;
}

/** Aliases that are followed. */
const HOPS = 8;

/** The keys of the names within the zone that an alias leads to, one after the other: the wildcard where only that answers. */
function chainOf(zone: Name, target: Name, rows: ReadonlyMap<string, Row>): string[] {
  const keys: string[] = [];
  let at = target;
  for (let hop = 0; hop < HOPS; hop++) {
    if (!rows.has(at.toString().toLowerCase())) at = zone.child('*');
    keys.push(at.key);
    const row = rows.get(at.toString().toLowerCase());
    const next = row?.types.has('CNAME') ? Name.parse(row.now[0]!) : undefined;
    if (!next?.isAtOrBelow(zone)) break;
    at = next;
  }
  return keys;
}

/** What of a set leads somewhere, in presentation form; no type where it does not. */
function leadOf(set: RRset): { type: string | undefined; data: readonly string[] } {
  if (set.type !== TYPE_CODES.A && set.type !== TYPE_CODES.AAAA && set.type !== TYPE_CODES.CNAME) return { type: undefined, data: [] };
  return rrsetToText(set);
}

/** The new web host gave something that this name can hold: at most DNS hosts no alias can stand at the domain itself. */
function hasValue({ addresses, aliasTarget }: HostKnowledge, addressesOnly: boolean, types: ReadonlySet<string>): boolean {
  if (addresses.length > 0) return true;
  return aliasTarget !== undefined && (!addressesOnly || types.has('CNAME'));
}

/** Where the domain and `www` answered visitors: the addresses behind an alias of another zone are in no record here. */
function addressesSeen(zone: Name, pages: readonly PageLook[]): string[] {
  const own = siteHosts(zone);
  return pages.flatMap(({ hops }) => hops.flatMap(({ url, address }) => (own.includes(hostOf(url)) ? [address] : [])));
}

/** Host names that answer themselves with the page of the domain or of `www`. */
function samePages(zone: Name, pages: readonly PageLook[]): ReadonlySet<string> {
  const spellings = siteHosts(zone);
  const own = new Set(pages.flatMap(({ start, page }) => (page && spellings.includes(hostOf(start)) ? [page.fingerprint] : [])));
  return new Set(
    pages.flatMap(({ start, hops, page }) => {
      const isItself = hops.every((hop) => hostOf(hop.url) === hostOf(start));
      return page && isItself && own.has(page.fingerprint) ? [hostOf(start)] : [];
    }),
  );
}

/** The same names with what they lead to by the plan. */
export function withPlanned(names: readonly SiteName[], zone: Name, rulings: readonly Ruling[]): SiteName[] {
  const planned = new Map<string, string[]>();
  for (const row of rulings) {
    if (!row.planned || !isLead(row.type) || isHostsOwn(row)) continue;
    const owner = row.owner.toLowerCase();
    planned.set(owner, [...(planned.get(owner) ?? []), ...row.planned.data]);
  }
  return names.map((name) => ({ ...name, then: planned.get(Name.parse(name.owner, zone).toString().toLowerCase()) ?? [] }));
}

/** What `planGiven` is told of the names: each that shows the website, whether it goes along. */
export function namesSaid(names: readonly SiteName[], zone: Name): ReadonlyMap<string, boolean> {
  return new Map(names.filter(({ isFree }) => isFree).map(({ owner, moves }) => [Name.parse(owner, zone).toString().toLowerCase(), moves]));
}
