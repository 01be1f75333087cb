import { isHostName } from './hostNames';
import { namesIn } from './rdata';
import { TYPE_CODES, typeMnemonic } from './typeNames';
import { SetChange } from './update';

const NAMES_OF_HOSTS: ReadonlySet<number> = new Set([TYPE_CODES.A, TYPE_CODES.AAAA, TYPE_CODES.MX]);
const LEADING_TO_HOSTS: ReadonlySet<number> = new Set([TYPE_CODES.MX, TYPE_CODES.NS, TYPE_CODES.SRV]);

/**
 * Why a server may refuse one change that it was sent alone, as far as the change tells; `www_1.zone.example A` → a name of a host has no
 * underscore (RFC 952, RFC 1123 §2.1), which some servers hold updates to.
 */
export function refusedWords({ owner, type, after }: SetChange): string {
  if (!after) return 'Its rules for updates do not let this set go.';
  if (NAMES_OF_HOSTS.has(type) && !isHostName(owner, true)) return 'It takes addresses and mail only at names of letters, digits and hyphens.';
  const target = LEADING_TO_HOSTS.has(type)
    ? after.data.flatMap((data) => namesIn(type, data)).find((name) => !name.isRoot && !isHostName(name, false))
    : undefined;
  if (target) return `It leads to ${target.toString().replace(/\.$/, '')}, and its server takes only names of letters, digits and hyphens there.`;
  return `Its rules for updates do not take ${typeMnemonic(type)} records at this name.`;
}
