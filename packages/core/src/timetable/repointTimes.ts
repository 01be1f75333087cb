import { setsBeforehand } from '../hosts/needs';
import { isTakeover } from '../move/account';
import { answeredRows, unseenNames } from '../move/fronted';
import { LegPlan, keyOfRow } from '../move/plan';
import { AnswerSight, ServerSeen, ZoneSight } from '../move/seen';
import { Ruling, isChanging } from '../rebuild/ruling';
import { earliestSwitch } from './earliestSwitch';
import { Instant, SeenBetween, latest } from './instant';
import { Leads } from './leads';
import { lastLeadOutside, leadsNowhere } from './led';
import { Lowering } from './lowering';
import { endAt } from './runs';
import { Answered, Served } from './served';
import { ServerAnswers, setHorizons } from './setHorizons';
import { signedTimes } from './signedUntil';
import { Since, Watched, since } from './since';
import { LegTimes, TimesInput } from './times';
import { Wanted, sameTexts } from './wanted';

/**
 * Every time of a leg in which records change where they are: the servers stay, and caches are led to them without end, so that only
 * what those servers answered before bounds anything (docs/calculations.md).
 */
export function repointTimes(input: TimesInput): LegTimes {
  const { plan, seen, said, now, assumed, kept } = input;
  const { floor, hostAllowance: allowance } = assumed;
  const wanted = input.wanted ?? new Wanted(plan);
  const served = new Served({ wanted, said, now, allowance });
  const lowering = new Lowering({ plan, said, kept, served, now, allowance, wanted });
  const authorities = new Set(plan.newServers.map((one) => one.address));
  const waited = seen.zones.filter((one) => authorities.has(one.address) && !said.aside.has(one.address));
  const changing = changingRows(plan, wanted);
  const takeover = isTakeover(plan);
  const parents = seen.parent.filter((one) => !said.aside.has(one.address));
  // In another account every set was made anew: what stays as it was is looked for as well, and tells nothing of when.
  const looked = takeover ? answeredRows(plan).filter((row) => row.planned && (wanted.data(keyOfRow(row)) ?? []).length > 0) : changing;
  const changed = changedSince(waited, takeover ? [...new Set([...changing, ...looked])] : changing, { served, wanted, now });
  const untold = unseenNames(plan).length > 0 || (takeover && changing.length === 0);
  const shown = untold ? byWord(changed.all, looked.length, input.changedAt) : changed.all;
  const t0: SeenBetween | undefined = shown && { lastOld: shown.lastOld, firstNew: shown.firstNew + allowance };
  const before = new Map(setsBeforehand(plan).map((set) => [keyOfRow(set), [...set.data].sort()]));
  // What is there before the change begins nothing, where that is all that is new of a set.
  const late = changing.filter((row) => {
    const data = before.get(keyOfRow(row));
    return !data || !sameTexts(keyOfRow(row), data, [...(row.planned?.data ?? [])].sort());
  });
  const ts = changedFrom(waited, late, { served, wanted, plan, submittedAt: said.submittedAt });
  const spans = new Leads(input, served).spansNow();
  const earliest = earliestSwitch({ zones: seen.zones, oldZones: waited, led: spans.extending, served, lowering, wanted, said, now, floor });
  const lowered = Math.max(now, said.lowerAt ?? now);
  const planned = (ts === undefined ? Math.max(now, said.plannedSwitch ?? 0, earliest.at.at) : now) + allowance;
  const answers = seen.zones.map((server): ServerAnswers => {
    const unwanted = (key: string) => (answer: Answered) => answer !== null && wanted.is(key, answer) === false;
    return {
      server,
      runs: (key) => {
        const all = served.runs(server, key);
        const low = ts === undefined ? lowering.foreseen(all, key, lowered, unwanted(key)) : all;
        return t0 || !authorities.has(server.address) ? low : endAt(low, Math.max(now, planned), unwanted(key));
      },
    };
  });
  const isHere = (server: string): boolean => authorities.has(server);
  const nowhere = leadsNowhere(t0?.firstNew ?? now, 'every nameserver seen to give the new values');
  const delegation = lastLeadOutside(spans.ordinary, isHere) ?? nowhere;
  const extended = latest([delegation, lastLeadOutside(spans.extending, isHere) ?? delegation])!;
  const bounded = Number.isFinite(extended.at);
  const sets = setHorizons({ plan, wanted, served, lowering, now, t0: t0?.firstNew, floor }, answers, bounded ? spans.extending : spans.ordinary);
  return {
    tl: lowering.since(waited),
    unlowered: lowering.unlowered(waited),
    t0,
    lacking: changed.lacking,
    ts,
    te: { all: undefined, lacking: [] },
    ...(takeover
      ? signedTimes({ plan, parents, oldZones: waited, now, floor, allowance: assumed.parentAllowance })
      : { td: undefined, signedUntil: undefined }),
    earliestSwitch: earliest.at,
    certain: earliest.certain,
    outlasting: earliest.outlasting,
    delegation,
    extended,
    sets,
    last: latest([bounded ? extended : delegation, ...sets.map((set) => set.horizon)])!,
    switchSeen: t0 !== undefined,
  };
}

/** Rows that change and of which an answer can tell: not where the data stays, or where another zone answers. */
function changingRows(plan: LegPlan, wanted: Wanted): Ruling[] {
  return answeredRows(plan).filter((ruling) => {
    const after = isChanging(ruling) ? wanted.data(keyOfRow(ruling)) : undefined;
    if (ruling.front && isChanging(ruling)) return true;
    return after !== undefined && !sameTexts(keyOfRow(ruling), [...(ruling.found?.data ?? [])].sort(), after);
  });
}

/** Where the same edge fronts a name before and after, no answer shows the change: when it was made is somebody's word, or our own act. */
function byWord(seen: SeenBetween | undefined, rows: number, at: Instant | undefined): SeenBetween | undefined {
  if (at === undefined || (rows > 0 && !seen)) return undefined;
  return { lastOld: Math.max(seen?.lastOld ?? -Infinity, at), firstNew: Math.max(seen?.firstNew ?? -Infinity, at) };
}

interface Judged {
  readonly served: Served;
  readonly wanted: Wanted;
}

/**
 * Since when every server answers each of the rows as planned; set by set, since a look may leave one unanswered. One that has refused
 * to answer for long gives nothing that could be remembered, as long as another one answers.
 */
function changedSince(servers: readonly ServerSeen<ZoneSight>[], rows: readonly Ruling[], { served, wanted, now }: Judged & { now: Instant }): Since {
  const heard = servers.filter((server) => server.sightings.length > 0);
  const lacking: Watched<unknown>[] = [];
  let all: SeenBetween | undefined;
  for (const server of heard)
    for (const row of rows) {
      const key = keyOfRow(row);
      const sightings = served.sights(server, key);
      const one = since([{ server: server.server, address: server.address, sightings }], (answer) => answer === null || wanted.is(key, answer) === true, now);
      if (!one.all || !heard.some((any) => served.sights(any, key).at(-1)?.value)) lacking.push(server);
      else {
        // Of a set that stays as it was, that it was not looked at before says nothing of when.
        const { firstNew } = one.all;
        const lastOld = isChanging(row) || one.all.lastOld < firstNew ? one.all.lastOld : -Infinity;
        all = { lastOld: Math.max(all?.lastOld ?? -Infinity, lastOld), firstNew: Math.max(all?.firstNew ?? -Infinity, firstNew) };
      }
    }
  return all && lacking.length === 0 ? { all, lacking: [] } : { all: undefined, lacking: [...new Set(lacking)] };
}

/**
 * ts: the earliest moment at which some authority may have served a new value: as somebody said, or as it was seen. A set that was
 * found otherwise and is new at the first look has changed since the survey; one that was not found may be what a wildcard gives.
 */
function changedFrom(
  servers: readonly ServerSeen<ZoneSight>[],
  rows: readonly Ruling[],
  { served, wanted, plan, submittedAt }: Judged & { plan: LegPlan; submittedAt: Instant | undefined },
): Instant | undefined {
  const isNew = (row: Ruling, answer: AnswerSight | null): boolean => answer !== null && wanted.is(keyOfRow(row), answer) === true;
  const seen = servers.flatMap((server) =>
    rows.flatMap((row) => {
      const sights = served.sights(server, keyOfRow(row));
      const index = sights.findIndex(({ value }) => isNew(row, value));
      if (index > 0) return [sights[index - 1]!.last];
      return index === 0 && row.found ? [plan.surveyedAt ?? sights[0]!.first] : [];
    }),
  );
  const all = submittedAt === undefined ? seen : [...seen, submittedAt];
  return all.length === 0 ? undefined : Math.min(...all);
}
