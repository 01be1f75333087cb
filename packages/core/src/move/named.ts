import { plain } from '../survey/words';
import { nameKey } from '../watch/verdict';
import { Leg } from './leg';
import { LegPlan } from './plan';

/** A domain has two nameservers at the least (RFC 1034 §4.1), and registries refuse fewer. */
const LEAST_NAMES = 2;

/** The new DNS host gives each domain nameservers of its own: they are known once the domain was added there. */
export function isGivenByDomain({ kind, isBack, newHost }: Pick<LegPlan, 'kind' | 'isBack' | 'newHost'>): boolean {
  return kind === 'delegation' && isBack !== true && newHost?.habits?.nameservers === 'by domain';
}

/** Its nameservers are still to be said. */
export function lacksNames(plan: Pick<LegPlan, 'kind' | 'isBack' | 'newHost' | 'newNameservers'>): boolean {
  return isGivenByDomain(plan) && plan.newNameservers.length === 0;
}

/** Why these cannot be the nameservers that the new host gave this domain; undefined where they can. */
export function namesRefused(leg: Pick<Leg, 'plan' | 'ts'>, names: readonly string[]): string | undefined {
  const { plan } = leg;
  if (!isGivenByDomain(plan)) return 'The nameservers that this domain goes to are not its own: they are noted with its DNS host.';
  if (leg.ts !== undefined) return 'The change is under way: which nameservers are wanted is not decided any more.';
  if (new Set(names.map(nameKey)).size < names.length) return 'One of them stands there twice.';
  if (names.length < LEAST_NAMES) return `${names.length === 0 ? 'No name was given' : 'One is not enough'}: a domain has two nameservers at the least.`;
  const old = new Set(plan.oldNameservers.map(nameKey));
  const still = names.filter((name) => old.has(nameKey(name)));
  return still.length > 0 ? `${still.map(plain).join(', ')}: of the set that the domain has now. ${plan.newHost!.name} shows others.` : undefined;
}
