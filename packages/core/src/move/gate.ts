import { Instant } from '../timetable/instant';
import { isFirstUse } from './firstUse';
import { Leg } from './leg';
import * as rules from './lines';
import { LookKind } from './looks';
import { LegPlan } from './plan';
import { Line, LineRule, passes } from './lines/line';

export interface Gate {
  readonly open: boolean;
  readonly lines: readonly Line[];
  /** When it opens by itself, where all that is left is waiting. */
  readonly opensAt: Instant | null;
  /** Until when the permit is good without another look. */
  readonly goodUntil: Instant | null;
}

/** What is looked at again before the nameservers, or the records, are changed. */
export function gateLooks(plan: Pick<LegPlan, 'kind' | 'oldNameservers' | 'oldServers'>): readonly LookKind[] {
  if (isFirstUse(plan)) return ['parent', 'new'];
  return plan.kind === 'repoint' ? ['parent', 'old', 'drift'] : ['parent', 'old', 'new', 'drift'];
}

/** What must hold before the nameservers, or the records, may be changed: a permit that lapses after one look (docs/calculations.md). */
export function gateOf(leg: Leg): Gate {
  return leg.once('gate', () => {
    const lines = Object.values(rules).flatMap((rule: LineRule) => rule(leg) ?? []);
    const lacking = lines.filter((one) => !passes(one));
    const looks = gateLooks(leg.plan).map((kind) => leg.seen.looked[kind]);
    const oldest = looks.includes(undefined) ? null : Math.min(...looks.map((at) => at!));
    const opensAt = lacking.length > 0 && lacking.every((one) => one.holdsAt !== null) ? Math.max(...lacking.map((one) => one.holdsAt!)) : null;
    return { open: lacking.length === 0, lines, opensAt, goodUntil: oldest === null ? null : oldest + 2 * leg.state.every };
  });
}
