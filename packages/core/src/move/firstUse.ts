import { LegPlan } from './plan';

/** A domain to which nothing was ever delegated: no old servers, and only the parent's own denials to run out. */
export function isFirstUse({
  kind,
  oldNameservers,
  oldServers,
}: Pick<LegPlan, 'kind' | 'oldNameservers'> & { readonly oldServers?: LegPlan['oldServers'] }): boolean {
  return kind === 'delegation' && oldNameservers.length === 0 && (oldServers?.length ?? 0) === 0;
}
