import { Name } from '../dns/name';
import { inPrefix, parsePrefix } from '../dns/prefix';
import { Fronting, wished } from '../hosts/fronting';
import { Ruling, isHostsOwn } from '../rebuild/ruling';
import { LEADS, isLead } from '../rebuild/leads';
import { withApexAlias } from './apexAlias';
import { LegPlan, SetKey, keyOfRow, ownerOf, setKey, typeOf } from './plan';

/** Said once fronting was switched on for the names that had it off until the web host had verified the domain. */
export const FRONT_ON = 'front-on';

/** What a host answers in the place of a set: addresses of its own; `stored` as well, where fronting is being switched on. */
export interface Front {
  readonly ranges: readonly string[];
  readonly stored: readonly string[] | undefined;
  /** Where it is not known what stands there instead: anything but these, and nothing at all only where it `mayLack`. */
  readonly unlike?: readonly string[];
  readonly mayLack?: boolean;
  /** It stands for an alias at the apex, not for an edge. */
  readonly alias?: boolean;
}

/** A row as it is answered, which is not as it is stored where a host fronts the name. */
export interface AnsweredRow extends Ruling {
  readonly front?: Front;
}

type FrontedPlan = Pick<LegPlan, 'kind' | 'zone' | 'rulings' | 'newHost' | 'newWeb' | 'fronted' | 'fronting' | 'frontOn' | 'isBack'>;

/** How each name that leads somewhere is to be answered at a host that fronts names, by name in lower case; nothing where it does not. */
export function frontingOf(plan: FrontedPlan): ReadonlyMap<string, Fronting> {
  const names = new Map<string, Fronting>();
  if ((plan.newHost?.fronts.length ?? 0) === 0) return names;
  const found = new Set(plan.fronted.map((set) => set.owner.toLowerCase()));
  for (const row of plan.rulings) {
    const owner = row.owner.toLowerCase();
    if (!row.planned || !isLead(row.type) || isHostsOwn(row)) continue;
    // In place it goes on as it was found.
    const before = plan.kind === 'repoint' && found.has(owner) ? 'on' : 'off';
    const said = plan.fronting?.get(owner) ?? wishOf(plan, row);
    if (said !== undefined || !names.has(owner)) names.set(owner, said ?? before);
  }
  return names;
}

/** What the new web host wants of a name that leads to it, or that it asks for. */
function wishOf({ newWeb, zone }: FrontedPlan, { owner, planned }: Ruling): Fronting | undefined {
  if (!newWeb) return undefined;
  const asked = newWeb.requires.find((need) => isLead(need.type) && Name.parse(need.owner, zone).toString().toLowerCase() === owner.toLowerCase());
  if (asked?.fronting && asked.fronting !== 'either') return wished(asked.fronting);
  const target = newWeb.aliasTarget?.toLowerCase();
  const leads = planned!.data.some((data) => newWeb.addresses.includes(data) || data.toLowerCase() === target);
  return leads ? wished(newWeb.fronting) : undefined;
}

const made = new WeakMap<readonly Ruling[], { readonly of: FrontedPlan; readonly rows: readonly AnsweredRow[] }>();

/**
 * The rows as servers are to answer them. Where a host fronts a name its own addresses stand for whatever is stored there, an alias
 * included; where the old host fronts one, its addresses are what was found. Everything else is as it is stored.
 */
export function answeredRows(plan: FrontedPlan): readonly AnsweredRow[] {
  const known = made.get(plan.rulings);
  if (known && sameFronting(known.of, plan)) return known.rows;
  const rows = withApexAlias(plan, workOut(plan));
  made.set(plan.rulings, { of: plan, rows });
  return rows;
}

function sameFronting(a: FrontedPlan, b: FrontedPlan): boolean {
  return (
    a.kind === b.kind &&
    a.newHost === b.newHost &&
    a.newWeb === b.newWeb &&
    a.fronted === b.fronted &&
    a.fronting === b.fronting &&
    a.frontOn === b.frontOn &&
    a.isBack === b.isBack
  );
}

function workOut(plan: FrontedPlan): readonly AnsweredRow[] {
  const names = frontingOf(plan);
  if (names.size === 0 && plan.fronted.length === 0) return plan.rulings;
  const found = new Map<string, Map<string, Ruling['found']>>();
  for (const set of plan.fronted) {
    const owner = set.owner.toLowerCase();
    if (!found.has(owner)) found.set(owner, new Map());
    found.get(owner)!.set(set.type, set);
  }
  // What is put back may have been fronted in between: either is right.
  const either = (owner: string): boolean => plan.isBack === true || (names.get(owner) === 'later' && plan.frontOn === true);
  const touched = new Set([...names].flatMap(([owner, state]) => (state === 'on' || either(owner) ? [owner] : [])));
  const leads = leadsByName(plan.rulings);
  for (const owner of found.keys()) if (leads.has(owner)) touched.add(owner);
  if (touched.size === 0) return plan.rulings;
  const rows: AnsweredRow[] = plan.rulings.filter((row) => !isLead(row.type) || isHostsOwn(row) || !touched.has(row.owner.toLowerCase()));
  for (const owner of touched) {
    const own = new Map((leads.get(owner) ?? []).map((row) => [row.type, row]));
    const state = names.get(owner);
    for (const type of LEADS) {
      const row = answered(plan, { owner, type, stored: own.get(type), any: [...own.values()][0] }, found.get(owner), either(owner) ? 'either' : state);
      if (row) rows.push(row);
    }
  }
  return rows;
}

function leadsByName(rulings: readonly Ruling[]): Map<string, Ruling[]> {
  const leads = new Map<string, Ruling[]>();
  for (const row of rulings) {
    if (!isLead(row.type) || isHostsOwn(row)) continue;
    const owner = row.owner.toLowerCase();
    const own = leads.get(owner);
    if (own) own.push(row);
    else leads.set(owner, [row]);
  }
  return leads;
}

interface NameAndType {
  readonly owner: string;
  readonly type: (typeof LEADS)[number];
  readonly stored: Ruling | undefined;
  /** Another row of the name: whose reason and TTL it takes. */
  readonly any: Ruling | undefined;
}

/** TTL in seconds that most hosts give what their edge answers. */
const EDGE_TTL = 300;

function answered(
  plan: FrontedPlan,
  { owner, type, stored, any }: NameAndType,
  frontedFound: ReadonlyMap<string, Ruling['found']> | undefined,
  state: Fronting | 'either' | undefined,
): AnsweredRow | undefined {
  const found = frontedFound ? frontedFound.get(type) : stored?.found;
  const base = { owner: stored?.owner ?? any?.owner ?? owner, type, found, reason: stored?.reason ?? any?.reason ?? '' };
  if (state === 'either')
    return stored && { ...stored, ...rulingOf(found, stored.planned), found, front: { ranges: rangesOf(plan, type), stored: stored.planned?.data } };
  if (state !== 'on') return found || stored?.planned ? { ...base, ...rulingOf(found, stored?.planned) } : undefined;
  const ranges = rangesOf(plan, type);
  const front: Front = { ranges, stored: undefined };
  // The same addresses before and after: no answer tells one from the other.
  if (plan.kind === 'repoint' && found && ranges.length > 0 && allIn(ranges, found.data)) return { ...base, ruling: 'carry', planned: found, front };
  if (type === 'CNAME' || ranges.length === 0) return found ? { ...base, ruling: 'drop', planned: undefined, front } : undefined;
  const planned = { owner: base.owner, type, ttl: EDGE_TTL, data: [] };
  return { ...base, ruling: found ? 'repoint' : 'new', planned, front };
}

function rulingOf(found: Ruling['found'], planned: Ruling['planned']): Pick<Ruling, 'ruling' | 'planned'> {
  if (!planned) return { ruling: 'drop', planned: undefined };
  if (!found) return { ruling: 'new', planned };
  const same = found.data.length === planned.data.length && found.data.every((one) => planned.data.some((other) => other.toLowerCase() === one.toLowerCase()));
  return { ruling: same ? 'carry' : 'repoint', planned };
}

function rangesOf({ newHost }: FrontedPlan, type: string): readonly string[] {
  const v6 = type === 'AAAA';
  return type === 'CNAME' ? [] : (newHost?.fronts ?? []).filter((range) => range.includes(':') === v6);
}

function allIn(ranges: readonly string[], data: readonly string[]): boolean {
  const prefixes = ranges.flatMap((text) => parsePrefix(text) ?? []);
  return data.length > 0 && data.every((address) => prefixes.some((prefix) => inPrefix(prefix, address)));
}

/** True where an answer is the front's; nothing at all is, for a family that it does not have, and for an alias. */
export function isFrontAnswer({ ranges, unlike, mayLack }: Front, data: readonly string[]): boolean {
  if (unlike) return data.length === 0 ? mayLack === true : !data.some((one) => unlike.includes(one));
  return ranges.length === 0 ? data.length === 0 : allIn(ranges, data);
}

/** Names that the same edge fronts before and after a change in place: DNS shows nothing of it. */
export function unseenNames(plan: FrontedPlan): readonly string[] {
  if (plan.kind !== 'repoint' || plan.isBack) return [];
  const changing = new Set(plan.rulings.filter((row) => row.ruling !== 'carry' && isLead(row.type)).map((row) => row.owner.toLowerCase()));
  const kept = new Set(answeredRows(plan).flatMap((row) => (row.front && row.ruling === 'carry' ? [row.owner.toLowerCase()] : [])));
  return [...changing].filter((owner) => kept.has(owner));
}

/** What is asked besides, so that a name which is being fronted is seen to be. */
export function frontQuestions(plan: FrontedPlan): SetKey[] {
  if (!plan.frontOn) return [];
  return [...frontingOf(plan)].flatMap(([owner, state]) => (state === 'later' ? [setKey(owner, 'A'), setKey(owner, 'AAAA')] : []));
}

/** The key of the stored row for which an answer of the front stands; any other set is its own. */
export function storedKey(plan: FrontedPlan, key: SetKey): SetKey {
  const rows = answeredRows(plan);
  if (rows === plan.rulings || !isLead(typeOf(key))) return key;
  const own = plan.rulings.filter((row) => isLead(row.type) && row.owner.toLowerCase() === ownerOf(key));
  return own.some((row) => keyOfRow(row) === key) || own.length === 0 ? key : keyOfRow(own.find((row) => row.planned) ?? own[0]!);
}

/** How the name of a row is to be answered; null where its host fronts none, or the row leads nowhere. */
export function frontingOfRows(plan: FrontedPlan): (row: Pick<Ruling, 'owner' | 'type' | 'planned'>) => Fronting | null {
  const names = frontingOf(plan);
  return ({ owner, type, planned }) => (planned && isLead(type) ? (names.get(owner.toLowerCase()) ?? null) : null);
}
