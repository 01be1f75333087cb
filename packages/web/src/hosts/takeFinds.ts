import { Host } from '@wanderon/contract';
import { Find, plainRequirement } from '@wanderon/core';
import { TypedHost } from './typedHost';

/** A value that looks made for one site: it is asked for in each move, and this one is nobody else's. */
function isForOneSite({ type, data }: Find): boolean {
  return type === 'TXT' && /[0-9a-f]{6,}|[a-z0-9]{16,}/i.test(data) && !/^"v=/.test(data);
}

/** Where something that was found on a page goes in the form of a host of this role; undefined where nowhere. */
export function placeOf(role: Host['role'], find: Find): string | undefined {
  if (role === 'dns') return find.kind === 'nameserver' ? 'nameservers' : undefined;
  if (role !== 'web' || find.kind === 'nameserver') return undefined;
  if (find.kind === 'address' || (find.owner === '@' && (find.type === 'A' || find.type === 'AAAA'))) return 'addresses';
  if (find.owner === 'www' && find.type === 'CNAME') return 'alias target';
  if (find.owner === 'www' && (find.type === 'A' || find.type === 'AAAA')) return 'addresses';
  return isForOneSite(find) ? 'asked for in each move' : 'records it asks for';
}

/** The form with what was found put into it, beside what is there. */
export function withFinds(typed: TypedHost, finds: readonly Find[]): TypedHost {
  const lines = (text: string, more: readonly string[]): string => [...new Set([...text.split(/\s+/).filter(Boolean), ...more])].join('\n');
  const at = (place: string): Find[] => finds.filter((find) => placeOf(typed.role, find) === place);
  const asked = finds
    .filter((find) => ['records it asks for', 'asked for in each move'].includes(placeOf(typed.role, find) ?? ''))
    .map((find) => ({ ...plainRequirement({ owner: find.owner, type: find.type, data: isForOneSite(find) ? '' : find.data }), id: '' }))
    .filter((need) => !typed.requires.some((one) => one.owner === need.owner && one.type === need.type && one.data === need.data));
  return {
    ...typed,
    nameservers: lines(
      typed.nameservers,
      at('nameservers').map((find) => find.data),
    ),
    addresses: lines(
      typed.addresses,
      at('addresses').map((find) => find.data),
    ),
    aliasTarget: at('alias target')[0]?.data ?? typed.aliasTarget,
    requires: [...typed.requires, ...asked],
  };
}
