import { Derived, Instant } from '../timetable/instant';
import { Leg } from './leg';
import { stepsOf } from './steps';

/** A moment on the move's time axis. */
export interface Mark {
  readonly at: Instant;
  readonly label: string;
  readonly kind: 'step' | 'horizon' | 'planned';
  readonly derived: Derived | null;
}

/** What was done, is planned, and follows; in the order of time. Moments without a bound are left out. */
export function marksOf(leg: Leg): Mark[] {
  const marks: Mark[] = [];
  for (const { rule, standing } of stepsOf(leg)) {
    if (rule.label === undefined) continue;
    if (standing.state === 'done' && standing.doneAt !== null) marks.push({ at: standing.doneAt, label: rule.label, kind: 'step', derived: null });
    else if (standing.state === 'due' && standing.dueAt !== null) marks.push({ at: standing.dueAt, label: rule.title, kind: 'planned', derived: null });
  }
  // What was to come of a leg that is over, the one after it tells.
  if (!leg.plan.chosen || leg.plan.followed) return marks;
  const { times, said } = leg;
  const horizon = (label: string, derived: Derived): void => {
    if (Number.isFinite(derived.at)) marks.push({ at: derived.at, label, kind: 'horizon', derived });
  };
  if (!times.t0 && times.ts === undefined) {
    const what = leg.plan.kind === 'repoint' ? 'change' : 'switch';
    horizon(`earliest ${what}`, times.earliestSwitch);
    if (said.plannedSwitch !== null) marks.push({ at: said.plannedSwitch, label: `${what} planned`, kind: 'planned', derived: null });
  }
  if (leg.plan.kind === 'delegation') horizon('old nameservers forgotten', times.delegation);
  if (leg.plan.kind === 'repoint' || times.last.at !== times.delegation.at) horizon('last old answer', times.last);
  return marks.sort((a, b) => a.at - b.at);
}
