import { inPrefix, parsePrefix } from '../dns/prefix';
import { isHostsOwn } from '../rebuild/ruling';
import { RecordSlipsTold, SAYS_LITTLE, askedInstead, recordSlip } from '../slips/recordSlips';
import { PanelSlip, panelSlips } from '../slips/panelSlips';
import type { RRsetText } from '../dns/record';
import { isByHand } from './byHand';
import { Leg } from './leg';
import { LegPlan, SetKey, keyOfRow, ownerOf, setKey, typeOf } from './plan';
import { AnswerSight, ZoneSight } from './seen';

const NOT_FRONTED: RecordSlipsTold = {
  ...{ code: 'not fronted', codes: ['not fronted'] },
  text: 'The host answers what is stored: by the plan it answers this name with its own addresses. Switch that on there.',
};

/** Rows of which it is asked where they stand instead; of a zone that is all missing nothing needs to be asked. */
const ASKED_INSTEAD = 12;
/** Questions that this is worth in a look at one server, and to one row at the least. */
const QUESTIONS = 120;
const QUESTIONS_A_ROW = 10;

/** Why a server does not answer a set as planned, where a known slip explains it. */
export function slipSeen(leg: Leg, address: string, key: SetKey, answer: AnswerSight): RecordSlipsTold | undefined {
  const { plan } = leg;
  const front = leg.wanted.front(key);
  if (front?.alias) return undefined;
  if (front && !front.stored && answer.data.length > 0 && isByHand(leg)) return NOT_FRONTED;
  const ruling = leg.once('rulings by key', () => new Map(plan.rulings.map((row) => [keyOfRow(row), row]))).get(key);
  const sets = leg.seen.zones.find((one) => one.address === address)?.sightings.at(-1)?.value.sets ?? {};
  const fronts = leg.once('fronts', () => (plan.newHost?.fronts ?? []).flatMap((text) => parsePrefix(text) ?? []));
  const slip = recordSlip({
    zone: plan.zone.toString(),
    owner: ownerOf(key),
    type: typeOf(key),
    planned: leg.wanted.data(key) ?? [],
    served: answer.data,
    found: heldBefore(plan.kind, ruling?.found),
    elsewhere: (owner, type) => sets[setKey(owner, type)]?.data,
    rows: leg.once('planned rows', () =>
      plan.rulings.filter((row) => !isHostsOwn(row)).map((row) => ({ owner: row.owner, type: row.type, planned: row.planned?.data ?? [] })),
    ),
    elsewhereFound: leg.seen.astray?.get(key),
    isFront: (one) => fronts.some((prefix) => inPrefix(prefix, one)),
  });
  // What we sent was sent: a server that does not have it yet follows later, and nobody forgot to type anything.
  return slip && (isByHand(leg) || !SAYS_LITTLE.has(slip.code)) ? slip : undefined;
}

/** What a set held where it is typed now, before that: a new zone held nothing. */
function heldBefore(kind: LegPlan['kind'], found: RRsetText | undefined | null): readonly string[] {
  return kind === 'repoint' ? (found?.data ?? []) : [];
}

/** What is wrong in a panel as it stands, against the plan of the leg whose records are typed there. */
export function slipsInPanel(
  zone: string,
  { kind, rulings }: { readonly kind: LegPlan['kind']; readonly rulings: readonly PlannedRow[] },
  shown: readonly RRsetText[],
): PanelSlip[] {
  const rows = rulings.map(({ owner, type, planned, found }) => ({ owner, type, planned: planned?.data ?? [], found: heldBefore(kind, found) }));
  return panelSlips(zone, rows, shown);
}

interface PlannedRow {
  readonly owner: string;
  readonly type: string;
  readonly planned: RRsetText | null;
  readonly found: RRsetText | null;
}

/** Rows that are looked for elsewhere. */
const LOOKED_FOR = 3;

/** Sets that somebody says are typed and that no server of the host has: it is asked where else they stand. */
export function astrayKeys(leg: Leg): SetKey[] {
  const { plan, said, seen, wanted } = leg;
  if (!isByHand(leg) || said.typed.length === 0) return [];
  const servers = new Set(plan.newServers.map((one) => one.address));
  const latest = seen.zones.flatMap((one) => (servers.has(one.address) ? (one.sightings.at(-1)?.value ?? []) : []));
  const lacking = plan.rulings.map(keyOfRow).filter((key) => {
    if ((wanted.data(key) ?? []).length === 0 || !said.typed.some((row) => row.startsWith(`${key}/`))) return false;
    return latest.length > 0 && latest.every((sight) => sight.sets[key] !== undefined && wanted.is(key, sight.sets[key]) === false);
  });
  return lacking.slice(0, LOOKED_FOR);
}

/** What a server is asked besides, once it was seen to lack a set: where else in the zone that may have been typed. */
export function slipQuestions({ plan, wanted }: Pick<Leg, 'plan' | 'wanted'>, { sets }: Pick<ZoneSight, 'sets'>): SetKey[] {
  const zone = plan.zone.toString();
  const planned = plan.rulings.filter((row) => (wanted.data(keyOfRow(row)) ?? []).length > 0);
  const missing = planned.filter((row) => sets[keyOfRow(row)]?.data.length === 0);
  if (missing.length > ASKED_INSTEAD && missing.length === planned.length) return [];
  const rows = missing.slice(0, ASKED_INSTEAD);
  const each = Math.max(QUESTIONS_A_ROW, Math.floor(QUESTIONS / rows.length));
  const all = rows.flatMap(({ owner, type }) => askedInstead({ owner, type, zone }, each).map((one) => setKey(one.owner, one.type)));
  return [...new Set(all)].filter((key) => sets[key] === undefined);
}
