import { TYPE_CODES } from '../dns/typeNames';
import { isFirstUse } from '../move/firstUse';
import { answeredRows } from '../move/fronted';
import { LegPlan, SetKey, keyOf, keyOfRow } from '../move/plan';
import { Said } from '../move/said';
import { AnswerSight, ServerSeen, ZoneSight } from '../move/seen';
import { rowOfKey } from '../rebuild/fix';
import { isChanging } from '../rebuild/ruling';
import { Instant } from './instant';
import { Run } from './runs';
import { Answered, Served } from './served';
import { Since, Watched, sinceOf } from './since';
import { Wanted } from './wanted';

/** A set at a server whose TTL is above the one to which it was to go down. */
export interface Unlowered {
  readonly server: string;
  readonly key: SetKey;
  readonly ttl: number;
}

/** A set whose TTL goes down, and that TTL as found; seconds. */
export interface ToLower {
  readonly key: SetKey;
  readonly T: number;
}

/** Sets that the leg changes, and where the delegation does, the apex NS set: their TTLs are lowered. Only those that were found. */
export function setsToLower(plan: Parameters<typeof answeredRows>[0]): readonly ToLower[] {
  const rows = answeredRows(plan);
  const known = lowered.get(rows);
  if (known?.kind === plan.kind) return known.sets;
  const apexNs = keyOf(plan.zone, TYPE_CODES.NS);
  const sets = rows.flatMap((ruling) => {
    const key = keyOfRow(ruling);
    return ruling.found && (isChanging(ruling) || (key === apexNs && plan.kind === 'delegation')) ? [{ key, T: ruling.found.ttl }] : [];
  });
  lowered.set(rows, { kind: plan.kind, sets });
  return sets;
}

/** Asked for ten times at each look, of the same rows: of 60,000 that was a second of processor time. */
const lowered = new WeakMap<object, { readonly kind: LegPlan['kind']; readonly sets: readonly ToLower[] }>();

/** Whether some TTL goes down before the cutover: not where nothing was delegated before, nor on the way back, nor where all that changes is new. */
export function lowersTtls(plan: LegPlan): boolean {
  return !plan.isBack && (!plan.chosen || (!isFirstUse(plan) && setsToLower(plan).length > 0));
}

/** To what the TTLs of the old zone go down, how far that is, and what it will be. */
export class Lowering {
  /** TTL as found, of the sets that are lowered; seconds. */
  readonly T: ReadonlyMap<SetKey, number>;

  constructor(
    private readonly of: {
      readonly plan: LegPlan;
      readonly said: Said;
      /** Sets whose TTL cannot be lowered where they are: L = T, as found. */
      readonly kept: ReadonlySet<SetKey> | undefined;
      readonly served: Served;
      readonly now: Instant;
      /** Seconds after which unseen instances of an anycast host have followed. */
      readonly allowance: number;
      /** Where the same servers change: what they answer as planned has nothing to be lowered. */
      readonly wanted?: Wanted;
    },
  ) {
    this.T = new Map(setsToLower(of.plan).map(({ key, T }) => [key, T]));
  }

  /**
   * The TTL to which a set was to go down, or that a person takes; seconds. A set that nobody was to lower counts with its TTL as found, and
   * so does what a wildcard, a DNAME or an alias gave at a name that is new.
   */
  target(key: SetKey, answer: AnswerSight, first: AnswerSight): number {
    const { plan, said, kept } = this.of;
    // What goes back goes with the TTLs that there are.
    if (plan.isBack) return Infinity;
    const toLower = this.T.get(key);
    const asFound = rowOfKey(plan.rulings, key)?.found?.ttl ?? first.ttl;
    const T = toLower === undefined ? asFound : answer.data.length === 0 ? first.ttl : kept?.has(key) ? toLower : Math.min(toLower, said.lowerTo);
    return Math.max(T, said.acceptedTtl ?? 0);
  }

  /** tl. Set by set, since a look may leave one unanswered; a server that answers, but never for one of them, lacks. */
  since(servers: readonly ServerSeen<ZoneSight>[]): Since {
    const { served, now, allowance } = this.of;
    let lastOld = -Infinity;
    let firstNew = -Infinity;
    const silent: Watched<unknown>[] = [];
    const lacking: Watched<unknown>[] = [];
    for (const one of servers) {
      if (one.sightings.length === 0) continue;
      for (const key of this.T.keys()) {
        const sightings = served.sights(one, key);
        const found = sinceOf(sightings, (answer) => answer === null || !this.isTooHigh(key, answer), now);
        if (found) {
          lastOld = Math.max(lastOld, found.lastOld);
          firstNew = Math.max(firstNew, found.firstNew);
        } else (sightings.length === 0 ? silent : lacking).push({ server: one.server, address: one.address, sightings });
      }
    }
    // Who never answered for a set is named first.
    if (silent.length > 0 || lacking.length > 0) return { all: undefined, lacking: silent.length > 0 ? silent : lacking };
    return firstNew === -Infinity ? { all: undefined, lacking } : { all: { lastOld, firstNew: firstNew + allowance }, lacking: [] };
  }

  private isTooHigh(key: SetKey, answer: AnswerSight): boolean {
    return answer.ttl > this.target(key, answer, answer) && this.of.wanted?.is(key, answer) !== true;
  }

  unlowered(servers: readonly ServerSeen<ZoneSight>[]): Unlowered[] {
    return servers.flatMap((server) => {
      const sight = server.sightings.at(-1)?.value;
      if (!sight || sight.refused) return [];
      return [...this.T.keys()].flatMap((key) => {
        const answer = sight.sets[key];
        return answer && this.isTooHigh(key, answer) ? [{ server: server.server, key, ttl: answer.ttl }] : [];
      });
    });
  }

  /** The runs of a set at an old authority once the lowering is done `at` that moment. The same array where nothing goes down. */
  foreseen(runs: Run<Answered>[], key: SetKey, at: Instant, which: (answer: AnswerSight) => boolean): Run<Answered>[] {
    if (this.of.said.left.has('lower')) return runs;
    const first = runs.find((run) => run.value)?.value;
    const goesDown = ({ value, until }: Run<Answered>): boolean =>
      !!value && !!first && until === Infinity && value.ttl > this.target(key, value, first) && which(value);
    if (!first || !runs.some(goesDown)) return runs;
    return runs.flatMap((run) =>
      goesDown(run)
        ? [
            { ...run, until: Math.max(at, run.from) },
            { value: { ...run.value!, ttl: this.target(key, run.value!, first) }, from: at, until: Infinity },
          ]
        : [run],
    );
  }
}
