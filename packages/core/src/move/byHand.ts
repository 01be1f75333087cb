import { isTakeover } from './account';
import { Leg } from './leg';

/** What stands at the DNS host is typed by a person: we hold no key there, or the act was left to somebody. */
export function isByHand({ plan, said }: Pick<Leg, 'plan' | 'said'>): boolean {
  return isTakeover(plan) || !plan.newHost?.keyed || said.left.has(plan.kind === 'repoint' ? 'change' : 'push');
}
