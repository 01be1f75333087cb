import { Leg } from './leg';
import { personStep } from './rules/personStep';
import { StepRule } from './rules/rule';
import { cutoverStep } from './tasks';

export const OWN_TASK = 'own:';

/** The steps of a leg that somebody noted for it, in the order in which that was done. */
export function ownTaskRules({ said, plan }: Pick<Leg, 'said' | 'plan'>): StepRule[] {
  return said.ownTasks.map(({ id, title, when, note }) =>
    personStep(
      { id: OWN_TASK + id, title, chapter: when === 'before' ? 'rebuild' : 'watch', after: when === 'before' ? ['choose'] : [cutoverStep(plan)] },
      note,
    ),
  );
}
