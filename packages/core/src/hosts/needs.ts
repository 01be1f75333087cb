import { quotedText } from '../dns/quotedText';
import { Name } from '../dns/name';
import { RRsetText, rrsetFromText, rrsetToText } from '../dns/record';
import { LegPlan, SetKey, keyOfRow, setKey } from '../move/plan';
import { isAskedElsewhere } from '../move/scope';
import { rowOfKey } from '../rebuild/fix';
import { LedgerRow, RowDecision } from '../rebuild/ledgerRow';
import { ASKED_FOR, Ruling, isChanging } from '../rebuild/ruling';
import { HostKnowledge } from '../rebuild/host';
import { Requirement } from './requirement';

/** TTL in seconds of a record that a host asks for, once the move is settled. */
const ASKED_TTL = 3600;
/** Types of which several values stand side by side at one name, so that one more goes to those that are there. */
const BESIDE: ReadonlySet<string> = new Set(['TXT', 'CAA']);

/** Where a requirement stands in a plan: `instead`: another one of its group is planned, and is enough. */
export interface Need {
  readonly requirement: Requirement;
  readonly owner: string;
  readonly key: SetKey;
  /** The value in presentation form; undefined where the host gives one for this site and it is not known yet. */
  readonly data: string | undefined;
  readonly state: 'planned' | 'open' | 'instead';
}

/** What the new web host asks for, held against the plan; nothing where a leg sets back what was changed. */
export function needsOf(plan: Pick<LegPlan, 'zone' | 'rulings' | 'newWeb' | 'met' | 'isBack'>): readonly Need[] {
  if (plan.isBack || !plan.newWeb) return [];
  const all = plan.newWeb.requires.map((requirement): Need => {
    const set = required(plan.zone, requirement, plan.met?.get(requirement.id));
    const owner = set?.owner ?? Name.parse(requirement.owner, plan.zone).toString();
    const key = setKey(owner, requirement.type);
    const data = set?.data[0];
    const isThere = data !== undefined && (rowOfKey(plan.rulings, key)?.planned?.data.includes(data) ?? false);
    return { requirement, owner, key, data, state: isThere ? 'planned' : 'open' };
  });
  const enough = new Set(all.filter((need) => need.state === 'planned').map((need) => need.requirement.either));
  return all.map((need) =>
    need.state === 'open' && need.requirement.either !== '' && enough.has(need.requirement.either) ? { ...need, state: 'instead' } : need,
  );
}

/**
 * Sets that hold a temporary value which somebody says is taken out, with the data that is left: whether the value still stands there or
 * not, the set is as planned.
 */
export function clearedSets(plan: Pick<LegPlan, 'zone' | 'rulings' | 'newWeb' | 'met' | 'isBack' | 'cleared'>): ReadonlyMap<SetKey, readonly string[]> {
  const left = new Map<SetKey, readonly string[]>();
  if (!plan.cleared || plan.cleared.size === 0) return left;
  for (const { requirement, state, key, data } of needsOf(plan))
    if (requirement.ends === 'verified' && state === 'planned' && plan.cleared.has(requirement.id))
      left.set(
        key,
        (left.get(key) ?? rowOfKey(plan.rulings, key)?.planned?.data ?? []).filter((one) => one !== data),
      );
  return left;
}

/** A set as it has to stand in the live zone before the cutover: what was found there, and beside it what the host looks for. */
export interface EarlySet extends RRsetText {
  readonly found: readonly string[];
  /** What the host looks for, of its data. */
  readonly values: readonly string[];
}

/**
 * Sets that the host looks for in the live zone before the cutover. Whatever else the plan changes in such a set stays as it was found
 * until then; where a name holds one value only, another is not put in its place.
 */
export function earlySets(plan: Pick<LegPlan, 'zone' | 'rulings' | 'newWeb' | 'met' | 'isBack'>): readonly EarlySet[] {
  const values = new Map<SetKey, string[]>();
  for (const { requirement, state, key, data } of needsOf(plan))
    if (requirement.early && state === 'planned') values.set(key, [...(values.get(key) ?? []), data!]);
  return [...values].flatMap(([key, asked]): EarlySet[] => {
    const row = rowOfKey(plan.rulings, key);
    const found = row?.found?.data ?? [];
    const fresh = asked.filter((one) => !found.includes(one));
    if (!row?.planned || fresh.length === 0 || (found.length > 0 && !BESIDE.has(row.type))) return [];
    return [{ ...row.planned, data: [...found, ...fresh], found, values: asked }];
  });
}

/**
 * Sets that may stand in the live zone before the cutover, and begin nothing: what the host looks for beforehand, and what it asks for at
 * other names than those of the move, which another move of the domain may have put there for the same host.
 */
export function setsBeforehand(plan: Pick<LegPlan, 'zone' | 'rulings' | 'newWeb' | 'met' | 'isBack' | 'scope'>): readonly RRsetText[] {
  const elsewhere = plan.rulings.flatMap((row) => (row.planned && isChanging(row) && isAskedElsewhere(plan.scope, row.owner) ? [row.planned] : []));
  return [...earlySets(plan), ...elsewhere];
}

/**
 * The record that a requirement asks for, as a set of this zone; `given`: the value that the host gave for this site. Undefined where
 * it gives one and it is not known. Throws where it cannot be read.
 */
export function required(zone: Name, need: Requirement, given?: string): RRsetText | undefined {
  const text = need.data === '' ? given : need.data;
  if (text === undefined) return undefined;
  const owner = Name.parse(need.owner, zone);
  const data = text.replaceAll('{zone}', zone.toString().replace(/\.$/, ''));
  return rrsetToText(rrsetFromText({ owner: owner.toString(), type: need.type, ttl: ASKED_TTL, data: [data] }));
}

/** What a web host asks for of every site, as it is proposed: of alternatives the first. */
export function proposed(newWeb: HostKnowledge): readonly Requirement[] {
  const taken = new Set<string>();
  return newWeb.requires.filter(({ either, data }) => {
    if (either !== '' && taken.has(either)) return false;
    if (either !== '') taken.add(either);
    return data !== '';
  });
}

/**
 * The row that holds what is asked for: a set of its own, or one value more beside those that are there. Undefined where it cannot
 * be so: a name holds one alias, and where addresses lead is not for a list of requirements to say.
 */
export function rowWith<R extends Ruling>(
  rows: readonly R[],
  set: RRsetText,
  reason: string,
): { row: NonNullable<RowDecision>; instead: R | undefined } | undefined {
  const before = rows.find((row) => keyOfRow(row) === setKey(set.owner, set.type));
  if (!before?.planned) {
    const found = before?.found;
    if (found)
      return { row: { owner: before.owner, type: before.type, ruling: 'repoint', found, planned: { ...set, ttl: found.ttl }, reason }, instead: before };
    return { row: { owner: set.owner, type: set.type, ruling: 'new', found: undefined, planned: set, reason }, instead: before };
  }
  if (set.data.every((one) => before.planned!.data.includes(one))) return { row: before, instead: before };
  if (!BESIDE.has(set.type)) return undefined;
  const planned = { ...before.planned, data: [...before.planned.data, ...set.data] };
  return { row: { owner: before.owner, type: before.type, ruling: before.found ? 'repoint' : 'new', found: before.found, planned, reason }, instead: before };
}

export type GivenResult =
  | { readonly ok: true; readonly id: string | undefined; readonly row: NonNullable<RowDecision>; readonly data: string }
  | { readonly ok: false; readonly problem: string };

/**
 * The row with the value that a host gave for this site, as somebody typed or pasted it. Text may stand without quotes; one that was
 * given before and is another now gives way.
 */
export function givenRow(plan: Pick<LegPlan, 'zone' | 'newWeb' | 'met'>, rows: readonly LedgerRow[], requirement: Requirement, typed: string): GivenResult {
  const text = typed.trim();
  if (text === '') return { ok: false, problem: 'The value is empty.' };
  const quotes = requirement.type === 'TXT' && !text.startsWith('"');
  const data = quotes ? quotedText(text) : text;
  let set: RRsetText;
  try {
    set = required(plan.zone, { ...requirement, data: '' }, data)!;
  } catch (error) {
    return { ok: false, problem: `This is no value of a ${requirement.type} record: ${(error as Error).message}.` };
  }
  const former = plan.met?.get(requirement.id);
  const stale = former === undefined ? undefined : required(plan.zone, { ...requirement, data: '' }, former)!.data[0];
  const without = rows.map((row) =>
    keyOfRow(row) === setKey(set.owner, set.type) && row.planned && stale !== set.data[0] ? { ...row, planned: withoutValue(row.planned, stale) } : row,
  );
  const reason = `${plan.newWeb!.name} ${ASKED_FOR}`;
  const made = rowWith(without, set, reason) ?? insteadOf(plan, without, set, requirement, reason);
  return { ok: true, id: made.instead?.id, row: made.row, data: set.data[0]! };
}

/** What was given for this site takes the place of what stands there; several values given for one name stand together. */
function insteadOf(
  { zone, newWeb, met }: Pick<LegPlan, 'zone' | 'newWeb' | 'met'>,
  rows: readonly LedgerRow[],
  set: RRsetText,
  requirement: Requirement,
  reason: string,
): { row: NonNullable<RowDecision>; instead: LedgerRow } {
  const before = rows.find((row) => keyOfRow(row) === setKey(set.owner, set.type))!;
  const others = newWeb!.requires.flatMap((one) => {
    const value = one.id === requirement.id ? undefined : met?.get(one.id);
    const given = value === undefined || one.type !== set.type ? undefined : required(zone, { ...one, data: '' }, value);
    return given && setKey(given.owner, given.type) === setKey(set.owner, set.type) ? given.data : [];
  });
  const data = set.type === 'CNAME' ? set.data : [...new Set([...others, ...set.data])];
  const planned = { ...before.planned!, data: [...data] };
  return { row: { owner: before.owner, type: before.type, ruling: before.found ? 'repoint' : 'new', found: before.found, planned, reason }, instead: before };
}

function withoutValue(set: RRsetText, value: string | undefined): RRsetText | undefined {
  const data = set.data.filter((one) => one !== value);
  return data.length > 0 ? { ...set, data } : undefined;
}
