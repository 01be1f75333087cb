import { Name } from '../dns/name';
import { Prefix, inPrefix, parsePrefix } from '../dns/prefix';
import { RRsetText, rrsetFromText, rrsetToText } from '../dns/record';
import { typeCode } from '../dns/typeNames';
import { Edge } from './fronting';
import { SetKey, setKey } from '../move/plan';

/** What becomes of a zone once its domain is delegated elsewhere: it stays as it is, or it goes or gives way to a parking page. */
export const AFTER_LEAVING = ['keeps', 'drops'] as const;

/** In how many of its accounts a domain can stand: not said, in one (it has to let go before another can hold it), or in several, one of which is live. */
export const ACCOUNTS = ['unknown', 'one', 'several'] as const;

/** Whether it signs zones: not said, it does not, or it can. */
export const SIGNS = ['unknown', 'no', 'yes'] as const;

/** What becomes of an alias at the domain itself: not said, there is none, or it is answered as the addresses that it leads to. */
export const APEX_ALIAS = ['unknown', 'no', 'addresses'] as const;

/** Whether it gives every domain the same nameservers, or each its own, which it shows once the domain was added. */
export const NAMESERVER_SETS = ['fixed', 'by domain'] as const;

/** How a DNS host goes about its zones, besides how its panel wants values. */
export interface DnsHabits {
  /** Whose service it is: what else that company sells has other nameservers, which are taken for these. Empty: not said. */
  readonly company: string;
  /** What a new zone begins with, a record a line: `www A 192.0.2.7`; `@` and `{zone}` stand for the domain. */
  readonly begins: readonly string[];
  /** Rows that its panel does not let be changed, such as `@ NS`. */
  readonly locks: readonly string[];
  /** Names and ranges of addresses of services of its own that forward mail or visitors, and end with the zone. */
  readonly forwards: readonly string[];
  readonly afterLeaving: (typeof AFTER_LEAVING)[number];
  /** How its edge, where it has one, reaches the web host. */
  readonly edge: Edge;
  /** The address that stands in for a name which only its edge answers, as where it redirects; empty: none is needed, or not said. */
  readonly standIn: string;
  readonly accounts: (typeof ACCOUNTS)[number];
  readonly signs: (typeof SIGNS)[number];
  readonly apexAlias: (typeof APEX_ALIAS)[number];
  readonly nameservers: (typeof NAMESERVER_SETS)[number];
  /** Records that it takes in one zone; null: no limit is known. */
  readonly most: number | null;
  /** What its panel says of entries that are right, in its words: nobody is to be led astray by it. */
  readonly warnings: readonly string[];
}

export const USUAL_HABITS: DnsHabits = {
  company: '',
  begins: [],
  locks: [],
  forwards: [],
  afterLeaving: 'keeps',
  edge: 'unknown',
  standIn: '',
  accounts: 'unknown',
  signs: 'unknown',
  apexAlias: 'unknown',
  nameservers: 'fixed',
  most: null,
  warnings: [],
};

/** TTL in seconds of what a new zone begins with: panels rarely say. */
const BEGIN_TTL = 3600;

/**
 * The sets with which a zone begins there; throws a RangeError that names the line which is no record.
 *
 *     beginsWith(['@ A 192.0.2.7', 'www CNAME {zone}.'], 'choir.example.')
 */
export function beginsWith(lines: readonly string[], zone: string): RRsetText[] {
  const sets = new Map<SetKey, RRsetText>();
  for (const line of lines) {
    const found = /^(\S+)\s+(?:IN\s+)?([A-Z0-9-]+)\s+(\S.*)$/i.exec(line.trim());
    if (!found) throw new RangeError(`"${line}" is no record: a name, a type and a value, such as www A 192.0.2.7.`);
    const set = readLine({ owner: found[1]!, type: found[2]!, data: found[3]! }, zone, line);
    const key = setKey(set.owner, set.type);
    const known = sets.get(key);
    sets.set(key, known ? { ...known, data: [...known.data, ...set.data.filter((one) => !known.data.includes(one))] } : set);
  }
  return [...sets.values()];
}

function readLine({ owner, type, data }: Record<'owner' | 'type' | 'data', string>, zone: string, line: string): RRsetText {
  try {
    const origin = Name.parse(zone);
    const given = data.replaceAll('{zone}', zone.replace(/\.$/, ''));
    const set = {
      owner: Name.parse(owner.replaceAll('{zone}', zone.replace(/\.$/, '')), origin).toString(),
      type: type.toUpperCase(),
      ttl: BEGIN_TTL,
      data: [given],
    };
    return rrsetToText(rrsetFromText(set));
  } catch (error) {
    throw new RangeError(`"${line}" is no record: ${(error as Error).message}.`, { cause: error });
  }
}

/** The set that a locked row names; throws a RangeError where it names none. */
export function lockedSet(row: string, zone: string): SetKey {
  const found = /^(\S+)\s+(\S+)$/.exec(row.trim());
  if (!found || typeCode(found[2]!.toUpperCase()) === undefined) throw new RangeError(`"${row}" is no row: a name and a type, such as @ NS.`);
  return setKey(Name.parse(found[1]!, Name.parse(zone)).toString(), found[2]!.toUpperCase());
}

/** Says of a name or an address whether a service of the host forwards there. Throws a RangeError where one of them is neither name nor range. */
export function forwardsTo(forwards: readonly string[]): (target: string) => boolean {
  const ranges: Prefix[] = [];
  const names: Name[] = [];
  for (const one of forwards) {
    const range = parsePrefix(one);
    if (range) ranges.push(range);
    else names.push(Name.parse(one.endsWith('.') ? one : `${one}.`));
  }
  return (target) => {
    if (ranges.some((range) => inPrefix(range, target))) return true;
    if (!target.endsWith('.')) return false;
    const name = Name.parse(target);
    return names.some((one) => name.isAtOrBelow(one));
  };
}
