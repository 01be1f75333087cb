import { Name } from '../../dns/name';
import { TYPE_CODES } from '../../dns/typeNames';
import { SpfTerm, isSpf, readSpf } from '../../policy/spf';
import { namedBy, spfChain } from './spfChain';
import { rowAt } from '../fix';
import { isAsFound } from '../ruling';
import { Check, CheckInput, Remark, remark } from './check';
import { plannedZone } from './plannedZone';
import { textsAt, textsOf } from './textsAt';

/** Lookups that find nothing, after which receivers answer permerror (RFC 7208 §4.6.4). */
const VOID_LOOKUPS = 2;

/** An SPF record that names what the plan does not have (RFC 7208 §4.6.4), or leads back to itself (§5.2, §6.1). Of other zones nothing is known. */
export const spfNames: Check = (input) =>
  input.rulings.flatMap((row): Remark[] => {
    const [spf] = textsOf(row).flatMap((text) => readSpf(text) ?? []);
    if (!spf) return [];
    const owner = Name.parse(row.owner);
    const { loop } = spfChain(input, owner, spf);
    if (loop) {
      const on = loop.slice(1, -1).map((name) => name.toString().replace(/\.$/, ''));
      const way = on.length > 0 ? `, by ${on.join(' and ')},` : '';
      return [
        remark(
          row,
          'look',
          'spf-itself',
          `The SPF record leads${way} back to ${loop.at(-1)!.equals(owner) ? 'itself' : 'one before'}: receivers take that for an error.`,
        ),
      ];
    }
    const gone: string[] = [];
    for (const term of spf.terms) {
      const target = namedBy(owner, term);
      if (!target?.isAtOrBelow(input.zone)) continue;
      // What was never there has been so all along; what is typed now, or goes with the plan, is news.
      if ((!isAsFound(row) || wasThere(input, target, term)) && isGone(input, target, term)) gone.push(`${term.name}:${target.toString().replace(/\.$/, '')}`);
    }
    if (gone.length === 0) return [];
    const error = gone.some((one) => /^(include|redirect):/.test(one)) || gone.length > VOID_LOOKUPS;
    const then = error ? 'receivers take that for an error' : 'nobody may send by it, and receivers give up after two of the kind';
    return [remark(row, 'look', 'spf-void', `The SPF record names ${gone.slice(0, 3).join(', ')}, of which the plan has nothing: ${then}.`)];
  });

const TYPES: Readonly<Record<string, readonly string[]>> = { a: ['A', 'AAAA'], mx: ['MX'], include: ['TXT', 'CNAME'], redirect: ['TXT', 'CNAME'] };

function wasThere({ rulings }: CheckInput, target: Name, { name }: SpfTerm): boolean {
  return TYPES[name]!.some((type) => rowAt(rulings, target.toString(), type)?.found !== undefined);
}

function isGone(input: CheckInput, target: Name, { name }: SpfTerm): boolean {
  const has = (types: readonly number[]): boolean => {
    const asked = types.map((type) => plannedZone(input).ask(target, type));
    return asked.some((one) => one.referral !== undefined || one.answers.length > 0);
  };
  if (name === 'a') return !has([TYPE_CODES.A, TYPE_CODES.AAAA]);
  if (name === 'mx') return !has([TYPE_CODES.MX]);
  // An alias may lead to a record elsewhere.
  return !textsAt(input, target.toString()).some(isSpf) && !has([TYPE_CODES.CNAME]);
}
