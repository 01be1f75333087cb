import { Name } from '../../dns/name';
import { SPF_LOOKUPS, SpfRecord, SpfTerm, readSpf } from '../../policy/spf';
import { CheckInput } from './check';
import { textsAt } from './textsAt';

/** Mechanisms and modifiers that name something; without a name, the domain itself. */
const NAMES: ReadonlySet<string> = new Set(['a', 'mx', 'include', 'redirect']);

/** What a term of the record at `owner` names; undefined where it names nothing, or what only a receiver knows (RFC 7208 §7). */
export function namedBy(owner: Name, { name, value }: SpfTerm): Name | undefined {
  if (!NAMES.has(name) || value.includes('%')) return undefined;
  const host = value.replace(/\/.*$/s, '').replace(/\.$/, '');
  return host === '' ? owner : Name.tryParse(`${host}.`);
}

export interface SpfChain {
  /** Terms that ask the DNS, of the record and of those in this zone that it leads on to (RFC 7208 §4.6.4); of more than twice the limit some. */
  readonly lookups: number;
  /** Names from the record's own to one that stands on the way already; undefined where it comes to an end. */
  readonly loop: readonly Name[] | undefined;
}

/** What a receiver does with the record at a name, as far as this zone tells; of other zones nothing is known. */
export function spfChain(input: Pick<CheckInput, 'zone' | 'rulings'>, owner: Name, record: SpfRecord): SpfChain {
  const walk = (at: Name, { terms, lookups: own }: SpfRecord, way: readonly Name[]): SpfChain => {
    const isAll = terms.some(({ name }) => name === 'all');
    let lookups = own;
    for (const term of terms) {
      // Beside an `all` a redirect is not looked at (RFC 7208 §6.1).
      if (term.name === 'redirect' && isAll) lookups -= 1;
      else if (term.name === 'include' || term.name === 'redirect') {
        const target = namedBy(at, term);
        if (!target?.isAtOrBelow(input.zone)) continue;
        if (way.some((one) => one.equals(target))) return { lookups, loop: [...way, target] };
        const [next] = textsAt(input, target.toString()).flatMap((text) => readSpf(text) ?? []);
        if (!next) continue;
        const further = walk(target, next, [...way, target]);
        lookups += further.lookups;
        if (further.loop || lookups > 2 * SPF_LOOKUPS) return { lookups, loop: further.loop };
      }
    }
    return { lookups, loop: undefined };
  };
  return walk(owner, record, [owner]);
}
