import { MoveSummary } from '@wanderon/contract';
import { Derived, Instant, Mark, deskPlaceOf, marksOf, nextOf, shownScope } from '@wanderon/core';
import { LoadedMove } from './legLoader';

/** What the Desk and the list of moves show of one move; kept in its row, so that a page of them is one query. */
export function summaryOf({ move, legs, current }: LoadedMove, now: Instant): MoveSummary {
  const { leg, row, hosts } = current;
  const name = (id: string | null): string | null => (id ? (hosts.get(id)?.name ?? null) : null);
  const inPlace = row.kind === 'repoint' && !row.account;
  const begun: Mark = { at: move.created_at, label: 'begun', kind: 'step', derived: null };
  const marks = [begun, ...legs.flatMap((one) => marksOf(one.leg))];
  const { t0, last } = leg.plan.chosen ? leg.times : { t0: undefined, last: undefined };
  return {
    id: move.id,
    leg: row.id,
    domain: move.domain,
    shown: shownScope(move.scope, move.domain),
    scope: move.scope.kind === 'whole' ? { kind: 'whole' } : { kind: 'names', names: [...move.scope.names] },
    client: move.client,
    state: move.state,
    createdAt: move.created_at,
    from: name(inPlace ? row.old_web_host : row.old_dns_host),
    // In place it is the website that goes elsewhere.
    to: name(inPlace ? row.new_web_host : row.new_dns_host),
    next: move.state === 'open' ? nextOf(leg) : null,
    marks: marks.map((mark) => ({ ...mark, derived: mark.derived && derivedView(mark.derived) })),
    drain: t0 && last ? { from: t0.firstNew, until: Number.isFinite(last.at) ? last.at : now } : null,
  };
}

/** Where it stands on the Desk, as columns. */
export function deskColumns({ next }: MoveSummary): { desk_group: number; desk_due: number } {
  const { group, due } = deskPlaceOf(next);
  return { desk_group: group, desk_due: due };
}

/** A number as it crosses HTTP: one without a bound is null. */
export function finite(value: number | null): number | null {
  return value !== null && Number.isFinite(value) ? value : null;
}

/** A moment as it crosses HTTP. */
export function derivedView(derived: Derived): {
  at: number | null;
  formula: string;
  terms: { symbol: string; meaning: string; value: number | null; unit: 'instant' | 'seconds' }[];
  follows: string;
} {
  return { ...derived, at: finite(derived.at), terms: derived.terms.map((term) => ({ ...term, value: finite(term.value) })) };
}
