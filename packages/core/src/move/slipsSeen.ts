import { inPrefix, parsePrefix } from '../dns/prefix';
import { isHostsOwn } from '../rebuild/ruling';
import { RecordSlipFound } from '../slips/records/slip';
import { askedInstead, recordSlip } from '../slips/recordSlips';
import { Leg } from './leg';
import { SetKey, keyOfRow, ownerOf, setKey, typeOf } from './plan';
import { AnswerSight } from './seen';

/** Rows of which it is asked where they stand instead; of a zone that is all missing nothing needs to be asked. */
const ASKED_INSTEAD = 12;

/** Why a server does not answer a set as planned, where a known slip explains it. */
export function slipSeen(leg: Leg, address: string, key: SetKey, answer: AnswerSight): RecordSlipFound | undefined {
  const { plan } = leg;
  const ruling = leg.once('rulings by key', () => new Map(plan.rulings.map((row) => [keyOfRow(row), row]))).get(key);
  const sets = leg.seen.zones.find((one) => one.address === address)?.sightings.at(-1)?.value.sets ?? {};
  const fronts = leg.once('fronts', () => (plan.newHost?.fronts ?? []).flatMap((text) => parsePrefix(text) ?? []));
  return recordSlip({
    zone: plan.zone.toString(),
    owner: ownerOf(key),
    type: typeOf(key),
    planned: leg.wanted.data(key) ?? [],
    served: answer.data,
    // A new zone held nothing before it was typed.
    found: plan.kind === 'repoint' ? (ruling?.found?.data ?? []) : [],
    elsewhere: (owner, type) => sets[setKey(owner, type)]?.data,
    rows: leg.once('planned rows', () =>
      plan.rulings.filter((row) => !isHostsOwn(row)).map((row) => ({ owner: row.owner, type: row.type, planned: row.planned?.data ?? [] })),
    ),
    isFront: (one) => fronts.some((prefix) => inPrefix(prefix, one)),
  });
}

/** What is asked besides, so that a set which is not where it belongs is found where it was typed. */
export function slipQuestions(leg: Leg): SetKey[] {
  const { plan, wanted, seen } = leg;
  const zone = plan.zone.toString();
  const servers = new Set(plan.newServers.map((one) => one.address));
  const latest = seen.zones.flatMap((one) => (servers.has(one.address) ? (one.sightings.at(-1)?.value ?? []) : []));
  const missing = plan.rulings.filter((row) => {
    const key = keyOfRow(row);
    const data = wanted.data(key) ?? [];
    return data.length > 0 && latest.some((sight) => sight.sets[key]?.data.length === 0);
  });
  if (missing.length > ASKED_INSTEAD && missing.length === plan.rulings.filter((row) => (wanted.data(keyOfRow(row)) ?? []).length > 0).length) return [];
  return missing.slice(0, ASKED_INSTEAD).flatMap(({ owner, type }) => askedInstead({ owner, type, zone }).map((one) => setKey(one.owner, one.type)));
}
