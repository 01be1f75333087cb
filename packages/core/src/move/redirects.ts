import { SeenRedirect, otherSpelling } from '../survey/website';
import { LegPlan } from './plan';

/**
 * Whether something in a plan brings a redirect along to the new place: the main spelling that was said, to which the other one is to lead
 * (and is looked at, `siteFaults`), or a task of a new host for redirects.
 */
export function rebuildsRedirect({ mainSpelling, newWeb, newHost }: Pick<LegPlan, 'mainSpelling' | 'newWeb' | 'newHost'>, { from, to }: SeenRedirect): boolean {
  if (mainSpelling === to && otherSpelling(to) === from) return true;
  return [...(newWeb?.tasks ?? []), ...(newHost?.tasks ?? [])].some((task) => task.redirects);
}
