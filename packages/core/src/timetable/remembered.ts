import { eff } from './eff';
import { Derived, Instant, instantTerm, secondsTerm } from './instant';
import { LedSpan } from './led';
import { Run } from './runs';

/** An answer to one question as far as its times go: its TTL, or that of the denial. */
export interface Remembered {
  readonly ttl: number;
  /** In words, for the sum; asked for only where it is told. */
  readonly words: () => string;
}

/**
 * R: until when an answer may be remembered that a server gives during these runs, by caches that are led to it during
 * these spans: max of min(l, q) + eff(v) over every run and span that overlap. Undefined where nobody is led there.
 * RFC 1035 §3.2.1, RFC 2308 §5.
 */
export function rememberedUntil(server: string, runs: readonly Run<Remembered>[], spans: readonly LedSpan[], floor: number): Derived | undefined {
  let last: { readonly at: Instant; readonly run: Run<Remembered>; readonly span: LedSpan } | undefined;
  for (const run of runs)
    for (const span of spans) {
      if (Math.max(run.from, span.from) >= Math.min(run.until, span.until)) continue;
      const at = Math.min(run.until, span.until) + eff(run.value.ttl, floor);
      if (!last || at > last.at) last = { at, run, span };
    }
  return (
    last && {
      at: last.at,
      formula: 'min(l, q) + eff(v)',
      terms: [
        instantTerm('l', `${server} last seen to answer ${last.run.value.words()}, or planned to be`, last.run.until),
        instantTerm('q', `nobody is led to ${server} any more`, last.span.until),
        secondsTerm('v', 'TTL of that answer', last.run.value.ttl),
        secondsTerm('f', 'floor a cache may apply', floor),
      ],
      follows: 'RFC 1035 §3.2.1, RFC 2308 §5',
    }
  );
}
