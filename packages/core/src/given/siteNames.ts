import { Name } from '../dns/name';
import { RRset, RRsetText, rrsetToText } from '../dns/record';
import { TYPE_CODES } from '../dns/typeNames';
import { Scope, chosenNames } from '../move/scope';
import { PageLook, hostOf } from '../survey/website';
import { plain } from '../survey/words';
import { HostKnowledge } from '../rebuild/host';
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
  const addresses = new Set([present, ...oldWeb].flatMap((host) => host?.addresses ?? []));
  const aliases = [present, ...oldWeb].flatMap((host) => (host?.aliasTarget ? [Name.parse(host.aliasTarget)] : []));
  const uses = otherUses(zone, found);
  const same = samePages(zone, pages);
  const chosen = scope.kind === 'names' ? new Set(chosenNames(scope.names).map((name) => `${name}.`)) : undefined;
  const rows = new Map<string, { name: Name; now: string[]; types: Set<string> }>();
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
  const follows: { readonly name: Name; readonly target: Name; readonly now: readonly string[] }[] = [];
  for (const [key, { name, now, types }] of rows) {
    const shown = name.relativeTo(zone);
    const make = (moves: boolean, why: string, isFree = true): void =>
      void names.push({ owner: shown, now, then: [], moves: isFree ? (said.get(key) ?? moves) : moves, isFree, why });
    if (chosen) {
      if (chosen.has(key)) make(true, 'the name of this move');
      continue;
    }
    const target = types.has('CNAME') ? Name.parse(now[0]!) : undefined;
    if (target?.isAtOrBelow(zone) && !given.has(key)) {
      follows.push({ name, target, now });
      continue;
    }
    const leadsThere = target ? aliases.some((alias) => target.isAtOrBelow(alias)) : now.some((one) => addresses.has(one));
    const sees = same.has(plain(key));
    if (!leadsThere && !sees && !given.has(key)) continue;
    const other = uses(name);
    if (given.has(key)) make(true, 'a value was given for it');
    else if (other.length > 0) make(false, `has another use: ${usesWords(other)}`);
    else if (newWeb && !hasValue(newWeb, name.equals(zone) && !apexAlias, types)) make(false, `no ${name.equals(zone) ? 'address' : 'value'} was given for it`);
    else make(true, leadsThere ? 'leads to the website' : 'shows the same page');
  }
  // What is an alias of another name of the zone goes where that one goes.
  const moving = new Map(names.map((name) => [Name.parse(name.owner, zone).key, name.moves]));
  for (const { name, target, now } of follows) {
    const moves = moving.get(lastInZone(zone, target, rows));
    if (moves !== undefined) names.push({ owner: name.relativeTo(zone), now, then: [], moves, isFree: false, why: `follows ${plain(target.toString())}` });
  }
  return names;
}

/** Aliases that are followed. */
const HOPS = 8;

/** The key of the last name within the zone that an alias leads to: the wildcard where only that answers. */
function lastInZone(zone: Name, target: Name, rows: ReadonlyMap<string, { readonly now: readonly string[]; readonly types: ReadonlySet<string> }>): string {
  let at = target;
  for (let hop = 0; hop < HOPS; hop++) {
    if (!rows.has(at.toString().toLowerCase())) at = zone.child('*');
    const row = rows.get(at.toString().toLowerCase());
    if (!row) return at.key;
    const next = row.types.has('CNAME') ? Name.parse(row.now[0]!) : undefined;
    if (!next?.isAtOrBelow(zone)) return at.key;
    at = next;
  }
  return at.key;
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

/** Host names that answer themselves with the page of the domain or of `www`. */
function samePages(zone: Name, pages: readonly PageLook[]): ReadonlySet<string> {
  const apex = plain(zone.toString()).toLowerCase();
  const own = new Set(pages.flatMap(({ start, page }) => (page && [apex, `www.${apex}`].includes(hostOf(start)) ? [page.fingerprint] : [])));
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
