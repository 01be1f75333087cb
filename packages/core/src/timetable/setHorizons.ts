import { answeredRows } from '../move/fronted';
import { LegPlan, SetKey, keyOfRow } from '../move/plan';
import { AnswerSight, ServerSeen, ZoneSight } from '../move/seen';
import { isChanging } from '../rebuild/ruling';
import { answerWords } from './answerWords';
import { Derived, Instant, instantTerm, latest } from './instant';
import { LedSpans } from './led';
import { Lowering } from './lowering';
import { Remembered, rememberedUntil } from './remembered';
import { Run } from './runs';
import { Answered, Served } from './served';
import { LegTimes } from './times';
import { Wanted, sameTexts } from './wanted';

/** What one server answers of each set and when, as it was seen and as it is planned. */
export interface ServerAnswers {
  readonly server: ServerSeen<ZoneSight>;
  readonly runs: (key: SetKey) => Run<Answered>[];
}

/** R of every set that changes, and of each that a server which caches are led to answers otherwise than planned (docs/calculations.md). */
export function setHorizons(
  of: {
    readonly plan: LegPlan;
    readonly wanted: Wanted;
    readonly served: Served;
    readonly lowering: Lowering;
    readonly now: Instant;
    /** t0, once there is one. */
    readonly t0: Instant | undefined;
    /** Seconds a cache keeps anything for at the least. */
    readonly floor: number;
  },
  zones: readonly ServerAnswers[],
  spans: LedSpans,
): LegTimes['sets'] {
  const { plan, wanted, served, lowering, now, t0, floor } = of;
  // Nothing has to run out; once the change was seen, that is no moment that moves on with the clock.
  const [symbol, at] = t0 === undefined ? ['now', now] : ['t0', t0];
  const none: Derived = {
    at,
    formula: symbol,
    terms: [instantTerm(symbol, 'no server was seen to answer it otherwise', at)],
    follows: 'RFC 1035 §3.2.1',
  };
  const rows = new Map(plan.backRaised ? plan.rulings.map((row) => [keyOfRow(row), row.found]) : []);
  /** Seconds; what we had sent there counts, whether or not somebody looked before it was taken back. */
  const sentTtl = (key: SetKey, answer: AnswerSight, from: Instant): number => {
    const sent = rows.get(key);
    return sent && from < (plan.backSince ?? -Infinity) && sameTexts(key, [...sent.data].sort(), [...answer.data].sort())
      ? Math.max(answer.ttl, sent.ttl)
      : answer.ttl;
  };
  const keys = new Set([...answeredRows(plan).filter(isChanging).map(keyOfRow), ...zones.flatMap(({ server }) => served.otherwise(server))]);
  return [...keys].flatMap((key) => {
    const all = zones.flatMap(({ server, runs }): Derived[] => {
      const led = spans.get(server.address);
      if (!led) return [];
      const unwanted = runs(key).flatMap(({ value, from, until }): Run<Remembered>[] =>
        value && wanted.is(key, value) === false ? [{ value: { ttl: sentTtl(key, value, from), words: () => answerWords(key, value) }, from, until }] : [],
      );
      const derived = rememberedUntil(server.server, unwanted, led, floor);
      return derived ? [derived] : [];
    });
    const horizon = latest(all) ?? (lowering.T.has(key) ? none : undefined);
    return horizon ? [{ key, horizon }] : [];
  });
}
