import { Leg } from './leg';
import { personStep } from './rules/personStep';
import { StepRule } from './rules/rule';

/** Something that somebody wants done in this move, beside what its hosts ask for. */
export interface OwnTask {
  readonly id: string;
  readonly title: string;
  /** `before`: the cutover waits for it. `after`: it can only be done then. */
  readonly when: 'before' | 'after';
  readonly note: string;
}

export const OWN_TASK = 'own:';

/** The steps of a leg that somebody noted for it, in the order in which that was done. */
export function ownTaskRules({ said, plan }: Pick<Leg, 'said' | 'plan'>): StepRule[] {
  const changed = plan.kind === 'repoint' ? 'changed' : 'switch';
  return said.ownTasks.map(({ id, title, when, note }) =>
    personStep({ id: OWN_TASK + id, title, chapter: when === 'before' ? 'rebuild' : 'watch', after: when === 'before' ? ['choose'] : [changed] }, note),
  );
}
