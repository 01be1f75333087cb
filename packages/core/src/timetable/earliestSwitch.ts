import { SetKey } from '../move/plan';
import { Said } from '../move/said';
import { AnswerSight, ServerSeen, ZoneSight } from '../move/seen';
import { sameNameSet } from '../watch/verdict';
import { eff } from './eff';
import { Derived, Instant, instantTerm, secondsTerm } from './instant';
import { LedSpans } from './led';
import { Lowering } from './lowering';
import { Served } from './served';
import { Wanted } from './wanted';
import { answerWords } from './answerWords';

export interface EarliestInput {
  /** Nothing was delegated before: there are no old servers to be heard. */
  readonly nobodyBefore?: boolean;
  /** Servers of the zone, old and new, and those of them that count as old authorities. */
  readonly zones: readonly ServerSeen<ZoneSight>[];
  readonly oldZones: readonly ServerSeen<ZoneSight>[];
  /** Where caches can have been led to until now. */
  readonly led: LedSpans;
  readonly served: Served;
  readonly lowering: Lowering;
  readonly wanted: Wanted;
  readonly said: Said;
  /** The apex NS set and what it is to be, where it is to change. */
  readonly apexNs?: SetKey;
  readonly newNameservers?: readonly string[];
  readonly now: Instant;
  /** Seconds a cache keeps anything for at the least. */
  readonly floor: number;
}

interface Outlasting {
  readonly at: Instant;
  readonly server: string;
  readonly key: SetKey;
  readonly goesOn: boolean;
  readonly l: Instant;
  readonly T: number;
  readonly L: number;
}

/**
 * (a) of the gate: until when a server that caches are led to has given answers that outlast what they were to be lowered to.
 * A run that goes on counts up to now; where its TTL is too high it is taken to be lowered when that is decided.
 * `certain` is false while some TTL is not seen lowered. RFC 1035 §3.2.1, RFC 2181 §8.
 */
export function earliestSwitch(input: EarliestInput): { at: Derived; certain: boolean; outlasting: number } {
  const { zones, oldZones, led, served, lowering, wanted, said, now, floor } = input;
  const lowered = Math.max(now, said.lowerAt ?? now);
  let last: Outlasting | undefined;
  let outlasting = 0;
  let certain = input.nobodyBefore === true || oldZones.some((server) => server.sightings.length > 0);
  const consider = (server: ServerSeen<ZoneSight>, key: SetKey, unwanted: (answer: AnswerSight) => boolean): void => {
    const spans = led.get(server.address) ?? [];
    const runs = served.runs(server, key);
    const first = runs.find((run) => run.value)?.value;
    for (const run of runs) {
      const { value } = run;
      if (!value || !first || !unwanted(value)) continue;
      // It can have been fetched there until the run ends, or nobody is led there any more.
      const ends = spans.flatMap((span) => (Math.max(run.from, span.from) < Math.min(run.until, span.until) ? [Math.min(run.until, span.until)] : []));
      if (ends.length === 0) continue;
      const L = lowering.target(key, value, first);
      const target = eff(L, floor);
      const ttl = eff(value.ttl, floor);
      if (ttl <= target) continue;
      const until = Math.max(...ends);
      if (until === Infinity) certain = false;
      const l = until === Infinity ? lowered : until;
      const at = l + ttl - target;
      if (until === Infinity || at > now) outlasting = Math.max(outlasting, ttl);
      if (!last || at > last.at) last = { at, server: server.server, key, goesOn: until === Infinity, l, T: value.ttl, L };
    }
  };
  for (const server of zones) {
    for (const key of served.otherwise(server)) consider(server, key, (answer) => wanted.is(key, answer) === false);
    const { apexNs, newNameservers } = input;
    if (apexNs && newNameservers) consider(server, apexNs, (answer) => !sameNameSet(answer.data, newNameservers));
  }
  return { at: last ? derived(last, floor) : nothing(now), certain, outlasting };
}

function derived({ at, server, key, goesOn, l, T, L }: Outlasting, floor: number): Derived {
  return {
    at,
    formula: 'l + eff(T) − eff(L)',
    terms: [
      instantTerm('l', goesOn ? `${server} lowers it, as decided` : `${server} seen to serve the lowered TTL, or nobody led there any more`, l),
      secondsTerm('T', `TTL of ${answerWords(key)} as found`, T),
      secondsTerm('L', `TTL of ${answerWords(key)} as lowered, or as taken`, L),
      secondsTerm('f', 'floor a cache may apply', floor),
    ],
    follows: 'RFC 1035 §3.2.1, RFC 2181 §8',
  };
}

function nothing(now: Instant): Derived {
  return {
    at: now,
    formula: 'now',
    terms: [instantTerm('now', 'no answer outlasts what it was to be lowered to', now)],
    follows: 'RFC 1035 §3.2.1',
  };
}
