import { eff } from './eff';
import { Derived, Instant, instantTerm, secondsTerm } from './instant';
import { Run } from './runs';

/** What a cache learns of where to ask: servers by key, and for how many seconds. */
export interface Lead {
  readonly servers: readonly string[];
  readonly ttl: number;
}

export interface LeadRuns {
  /** What servers of the parent say; each with who says it. */
  readonly parent: readonly { readonly says: string; readonly runs: readonly Run<Lead>[] }[];
  /** What a server of the zone says, by its key. */
  readonly zone: ReadonlyMap<string, readonly Run<Lead>[]>;
  readonly floor: number;
}

/** When a cache can be led to a server: [from, until). */
export interface LedSpan {
  readonly from: Instant;
  readonly until: Instant;
  /** How the end of the span comes about; put in words only where it is asked for. */
  readonly end: () => Derived;
}

export type LedSpans = ReadonlyMap<string, readonly LedSpan[]>;

/**
 * Led spans (docs/calculations.md). `ordinary`: of caches that take the delegation from the parent and let the zone's own
 * answer, fetched under it, take its place (RFC 2181 §5.4.1) until it runs out. `extending`: of caches that renew the
 * delegation from the zone's own answers, as long as those lead on.
 */
export function ledSpans(runs: LeadRuns): { ordinary: LedSpans; extending: LedSpans } {
  const parent = new Spans();
  for (const { says, runs: all } of runs.parent)
    for (const { value, from, until } of all) {
      const ttl = eff(value.ttl, runs.floor);
      const end = (): Derived => endOf({ l: until, v: value.ttl, floor: runs.floor, at: until + ttl, says });
      for (const server of value.servers) parent.add(server, { from, until: until + ttl, end });
    }
  const ordinary = parent.copy();
  parent.each((server, span) => follow(server, span, runs, ordinary, false));
  const extending = ordinary.copy();
  const settled = lastEvent(runs, extending);
  for (let changed = true; changed;) {
    changed = false;
    extending.each((server, span) => {
      changed = follow(server, span, runs, extending, true, settled) || changed;
    });
  }
  return { ordinary: ordinary.byServer, extending: extending.byServer };
}

/** What a server says to a cache that is led to it adds to where caches are led; tells whether it did. */
function follow(server: string, span: LedSpan, runs: LeadRuns, spans: Spans, renews: boolean, settled = Infinity): boolean {
  let changed = false;
  for (const { value, from, until } of runs.zone.get(server) ?? []) {
    const start = Math.max(from, span.from);
    const stop = Math.min(until, span.until);
    if (start >= stop) continue;
    const ttl = eff(value.ttl, runs.floor);
    for (const target of value.servers) {
      // A run that names its own server is renewed there for as long as it goes on.
      const last = renews && target === server && ttl > 0 ? until : stop;
      // Past the last event nothing changes any more: what still grows there goes on growing.
      const at = last + ttl > settled ? Infinity : last + ttl;
      const q = last === until ? undefined : span.until;
      const end = (): Derived => endOf({ l: until, q, v: value.ttl, floor: runs.floor, at, says: server });
      changed = spans.add(target, { from: start, until: at, end }) || changed;
    }
  }
  return changed;
}

/** After this moment every run that there is goes on, and a lead that grows has come round to where it was before. */
function lastEvent(runs: LeadRuns, spans: Spans): Instant {
  let last = 0;
  let longest = 0;
  const take = (one: { from: Instant; until: Instant }): void => {
    if (Number.isFinite(one.from)) last = Math.max(last, one.from);
    if (Number.isFinite(one.until)) last = Math.max(last, one.until);
  };
  for (const all of [...runs.parent.map((one) => one.runs), ...runs.zone.values()])
    for (const run of all) {
      take(run);
      longest = Math.max(longest, eff(run.value.ttl, runs.floor));
    }
  spans.each((_, span) => take(span));
  return last + longest * (runs.zone.size + 2);
}

function endOf(of: { l: Instant; q?: Instant | undefined; v: number; floor: number; at: Instant; says: string }): Derived {
  return {
    at: of.at,
    formula: of.q === undefined ? 'l + eff(v)' : 'min(l, q) + eff(v)',
    terms: [
      instantTerm('l', `${of.says} last seen to name it, or planned to be`, of.l),
      ...(of.q === undefined ? [] : [instantTerm('q', `nobody is led to ${of.says} any more`, of.q)]),
      secondsTerm('v', 'TTL of that NS set', of.v),
      secondsTerm('f', 'floor a cache may apply', of.floor),
    ],
    follows: 'RFC 1034 §4.2.1, RFC 2181 §5.4.1',
  };
}

/** Spans by server, those that touch put together. */
class Spans {
  readonly byServer = new Map<string, LedSpan[]>();

  add(server: string, span: LedSpan): boolean {
    if (span.from >= span.until) return false;
    const have = this.byServer.get(server) ?? [];
    if (have.some((one) => one.from <= span.from && one.until >= span.until)) return false;
    const touching = have.filter((one) => one.from <= span.until && one.until >= span.from);
    const merged = [...touching, span].reduce((a, b) => ({
      from: Math.min(a.from, b.from),
      until: Math.max(a.until, b.until),
      end: b.until > a.until ? b.end : a.end,
    }));
    this.byServer.set(
      server,
      [...have.filter((one) => !touching.includes(one)), merged].sort((a, b) => a.from - b.from),
    );
    return true;
  }

  /** Those that there are now, whatever is added meanwhile. */
  each(then: (server: string, span: LedSpan) => void): void {
    for (const [server, spans] of [...this.byServer]) for (const span of spans) then(server, span);
  }

  copy(): Spans {
    const copy = new Spans();
    for (const [server, spans] of this.byServer) copy.byServer.set(server, [...spans]);
    return copy;
  }
}

/** Where nobody can be led to any server outside of those wanted: from `at`, the moment at which that was seen. */
export function leadsNowhere(at: Instant, meaning: string): Derived {
  return { at, formula: 't0', terms: [instantTerm('t0', meaning, at)], follows: 'RFC 1034 §4.2.1' };
}

/** The last end of any span to a server outside the wanted set; undefined where nobody can be led to one. */
export function lastLeadOutside(spans: LedSpans, wanted: (server: string) => boolean): Derived | undefined {
  let last: LedSpan | undefined;
  for (const [server, all] of spans) {
    if (wanted(server)) continue;
    for (const span of all) if (!last || span.until > last.until) last = span;
  }
  return last && { ...last.end(), at: last.until };
}
