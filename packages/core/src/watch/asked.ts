import { TYPE_CODES, typeCode } from '../dns/typeNames';
import { isTakeover } from '../move/account';
import { answeredRows, frontQuestions } from '../move/fronted';
import { Leg } from '../move/leg';
import { signsAgain } from '../move/rules/dsAgain';
import { LegPlan, SetKey, keyOf, keyOfRow, setKey } from '../move/plan';
import { MADE_BY_SIGNING } from '../rebuild/hostsOwn';
import { isChanging, isHostsOwn } from '../rebuild/ruling';
import { sharedNames } from '../timetable/newSet';
import { nameKey } from './verdict';

/** Sets that are kept as they are and asked for at the servers that are left: as many as one of them answers within ten seconds or so. */
const KEPT_ASKED = 2000;

/**
 * What an old authority is asked: the apex NS set, what changes, names that stay and move, keys, and what it last answered otherwise than
 * planned. From the switch on also what is kept: whoever is still led there gets what somebody edits there, and it is not told as drift any
 * more.
 */
export function askedOfOld(leg: Leg): SetKey[] {
  const { plan, seen, wanted } = leg;
  const keys = changingSets(plan);
  for (const name of sharedNames(plan).keys()) keys.push(setKey(name, 'A'), setKey(name, 'AAAA'));
  if (plan.keysTtl !== undefined) keys.push(keyOf(plan.zone, TYPE_CODES.DNSKEY));
  for (const server of seen.zones) for (const { value } of server.sightings) for (const key of wanted.otherwise(value)) keys.push(key);
  if (isTakeover(plan) && leg.times.ts !== undefined) keys.push(...askedOfNew(leg));
  if (mayBeTyped(leg)) keys.push(...frontQuestions(plan));
  if (plan.kind === 'delegation' && leg.ts !== undefined) keys.push(...keptSets(plan));
  return [...new Set(keys)];
}

function keptSets(plan: LegPlan): SetKey[] {
  const kept = answeredRows(plan).filter((row) => row.planned !== undefined && !isHostsOwn(row) && !isChanging(row));
  return kept.slice(0, KEPT_ASKED).map(keyOfRow);
}

/** What is planned may have been typed into the servers that are there: records change in place, and somebody has begun. */
export function mayBeTyped({ plan, times }: Pick<Leg, 'plan' | 'times'>): boolean {
  return plan.kind === 'repoint' && times.ts !== undefined;
}

/** What a server of the new host is asked: every set of the ledger but what belongs to the host; the sets that change come first. */
export function askedOfNew(leg: Leg): SetKey[] {
  const hosts = (type: string): boolean => type === 'SOA' || MADE_BY_SIGNING.has(typeCode(type)!);
  return [
    ...new Set([
      ...changingSets(leg.plan),
      ...answeredRows(leg.plan)
        .filter((ruling) => !hosts(ruling.type))
        .map(keyOfRow),
      ...frontQuestions(leg.plan),
      ...(signsAgain(leg.plan, leg) ? [keyOf(leg.plan.zone, TYPE_CODES.DNSKEY)] : []),
    ]),
  ];
}

/** The apex NS set and the sets that change. */
export function changingSets(plan: LegPlan): SetKey[] {
  return [...new Set([keyOf(plan.zone, TYPE_CODES.NS), ...answeredRows(plan).filter(isChanging).map(keyOfRow)])];
}

/** Servers that a parent server or an authority has named and that stand in neither set. */
export function strangersNamed({ plan, seen }: Leg): string[] {
  const apex = keyOf(plan.zone, TYPE_CODES.NS);
  const known = new Set([...plan.oldNameservers, ...plan.newNameservers, ...plan.oldServers.map((one) => one.server)].map(nameKey));
  const named = [
    ...seen.parent.flatMap((one) => one.sightings.flatMap(({ value }) => value.nameservers)),
    ...seen.zones.flatMap((one) => one.sightings.flatMap(({ value }) => value.sets[apex]?.data ?? [])),
  ];
  return [...new Set(named.map(nameKey))].filter((name) => !known.has(name));
}
