import { OWN_TASK } from '../ownTasks';
import { isDone } from '../steps';
import { LineRule, line } from './line';

/** What somebody noted to be done before the cutover. */
export const ownTasks: LineRule = (leg) => {
  const before = leg.said.ownTasks.filter((task) => task.when === 'before');
  if (before.length === 0) return undefined;
  const open = before.flatMap((task) => (isDone(leg, OWN_TASK + task.id) ? [] : [task.title]));
  const text =
    open.length === 0
      ? 'What you noted to do before is done.'
      : `You noted to do before: ${open.slice(0, 3).join('; ')}${open.length > 3 ? `; and ${open.length - 3} more` : ''}.`;
  return line(leg, 'own tasks', open.length === 0, text, { waivable: true, about: open });
};
