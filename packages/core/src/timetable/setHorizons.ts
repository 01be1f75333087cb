import { LegPlan, SetKey, keyOfRow } from '../move/plan';
import { ServerSeen, ZoneSight } from '../move/seen';
import { isChanging } from '../rebuild/ruling';
import { answerWords } from './answerWords';
import { Derived, Instant, instantTerm, latest } from './instant';
import { LedSpans } from './led';
import { Lowering } from './lowering';
import { Remembered, rememberedUntil } from './remembered';
import { Run } from './runs';
import { Answered, Served } from './served';
import { LegTimes } from './times';
import { Wanted } from './wanted';

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
    /** Seconds a cache keeps anything for at the least. */
    readonly floor: number;
  },
  zones: readonly ServerAnswers[],
  spans: LedSpans,
): LegTimes['sets'] {
  const { plan, wanted, served, lowering, now, floor } = of;
  const none: Derived = {
    at: now,
    formula: 'now',
    terms: [instantTerm('now', 'no server was seen to answer it otherwise', now)],
    follows: 'RFC 1035 §3.2.1',
  };
  const keys = new Set([...plan.rulings.filter(isChanging).map(keyOfRow), ...zones.flatMap(({ server }) => served.otherwise(server))]);
  return [...keys].flatMap((key) => {
    const all = zones.flatMap(({ server, runs }): Derived[] => {
      const led = spans.get(server.address);
      if (!led) return [];
      const unwanted = runs(key).flatMap(({ value, from, until }): Run<Remembered>[] =>
        value && wanted.is(key, value) === false ? [{ value: { ttl: value.ttl, words: () => answerWords(key, value) }, from, until }] : [],
      );
      const derived = rememberedUntil(server.server, unwanted, led, floor);
      return derived ? [derived] : [];
    });
    const horizon = latest(all) ?? (lowering.T.has(key) ? none : undefined);
    return horizon ? [{ key, horizon }] : [];
  });
}
