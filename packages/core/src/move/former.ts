import { setsToLower } from '../timetable/lowering';
import { rebuildsZone } from './account';
import { Leg } from './leg';
import { LegPlan, SetKey } from './plan';
import { DecisionKind } from './said';
import { leaveWay, personStep } from './rules/personStep';
import { StepRule } from './rules/rule';

/** What was done outward for ways that were chosen before, and stands. */
export interface Former {
  /** DNS hosts to which the zone went and to which nothing leads; by their ids. */
  readonly pushed: readonly { readonly id: string; readonly name: string }[];
  /** Sets whose TTLs were lowered where the zone is; what is not lowered for this way is raised again with the rest. */
  readonly lowered: readonly SetKey[];
}

export const NO_FORMER: Former = { pushed: [], lowered: [] };

/** Decisions that were about the way that was chosen, and go with it; those of single rows are judged each by itself (`planAgain`). */
export const OF_THE_WAY: ReadonlySet<DecisionKind> = new Set<DecisionKind>([
  'push',
  'approve',
  'leave',
  'retry',
  'waive',
  'assent',
  'early',
  'front',
  'panel',
  'typed',
]);

/** What of a leg stands once another way is chosen. `hostId`: the DNS host to which it went until now. */
export function formerOf({ plan, said, state }: Leg, hostId: string | null): Former {
  const before = plan.former ?? NO_FORMER;
  const went = rebuildsZone(plan) && (state.work.has('push') || said.left.has('push') || said.typed.length > 0);
  const pushed = went && hostId !== null && plan.newHost ? [{ id: hostId, name: plan.newHost.name }] : [];
  const lowered = state.work.has('lower') || said.left.has('lower') ? setsToLower(plan).map((set) => set.key) : [];
  return {
    pushed: [...before.pushed.filter((one) => one.id !== hostId || pushed.length === 0), ...pushed],
    lowered: [...new Set([...before.lowered, ...lowered])],
  };
}

/** Why no other way can be chosen any more; undefined where one can. */
export function isTooLate(leg: Leg): string | undefined {
  if (!leg.plan.chosen) return undefined;
  if (leg.times.ts !== undefined) return 'The cutover is under way: from here on a move goes forward, or is backed out.';
  if (leg.state.work.has('turn')) return 'The old zone leads to the new servers already, and who follows it is there: a move goes forward from here.';
  return undefined;
}

/** The step that takes a zone out of a host to which nothing leads. */
export function unusedStep(host: string): string {
  return `unused:${host}`;
}

/** A zone that stands where nothing leads: somebody takes it out, or keeps it. */
export function unusedRules({ former, newHost, kind, chosen }: LegPlan): StepRule[] {
  if (!chosen) return [];
  const others = (former ?? NO_FORMER).pushed.filter((one) => kind === 'repoint' || one.id !== newHost?.id);
  return others.map(({ id: host, name }): StepRule => {
    const id = unusedStep(host);
    return personStep(
      { id, title: `Take the zone out of ${name}`, chapter: 'watch', after: ['choose'] },
      'It went there for a way that was chosen before. Nothing leads there: what is edited there is seen by nobody.',
      leaveWay(id, 'Keep it there', ''),
    );
  });
}
