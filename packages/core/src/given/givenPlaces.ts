import { Name } from '../dns/name';
import { RRsetText } from '../dns/record';
import { Requirement, plainRequirement } from '../hosts/requirement';
import { HostKnowledge } from '../rebuild/host';
import { isLead } from '../rebuild/leads';
import { JudgedItem } from './givenItem';
import { normal } from './judgeGiven';

/** What follows from all that was given for a move. Names absolute with final dot. */
export interface GivenPlaces {
  readonly nameservers: readonly string[];
  /** Where the website goes; undefined where neither an address nor an alias was given. */
  readonly web: Pick<HostKnowledge, 'addresses' | 'aliasTarget'> | undefined;
  /** Values that were given for names, a set each. */
  readonly sets: readonly RRsetText[];
  /** The same as the new web host asks for them, besides where names lead. */
  readonly requires: readonly Requirement[];
}

/** TTL in seconds of a record that was given without one. */
const GIVEN_TTL = 3600;

/** Puts together what is taken of the given things: nameservers, where the website goes, and the records that were named. */
export function givenPlaces(items: readonly JudgedItem[], zone: Name): GivenPlaces {
  const taken = items.filter(({ isTaken }) => isTaken);
  const of = (use: JudgedItem['use']): JudgedItem[] => taken.filter((one) => one.use === use);
  const site = of('website');
  const addresses = [...new Set(site.filter(({ type }) => type !== 'CNAME').map(({ data }) => data))];
  const aliasTarget = site.find(({ type }) => type === 'CNAME')?.data.toLowerCase();
  const sets = new Map<string, RRsetText>();
  for (const { kind, owner, type, data } of taken) {
    if (kind !== 'record' || type === 'NS') continue;
    const name = Name.parse(owner, zone);
    const key = `${name.key}/${type}`;
    const value = normal(name, type, data);
    const known = sets.get(key);
    if (!known) sets.set(key, { owner: name.toString(), type, ttl: GIVEN_TTL, data: [value] });
    else if (!known.data.includes(value)) sets.set(key, { ...known, data: [...known.data, value] });
  }
  return {
    nameservers: [...new Set(of('nameserver').map(({ data }) => data.toLowerCase()))],
    web: addresses.length > 0 || aliasTarget !== undefined ? { addresses, aliasTarget } : undefined,
    sets: [...sets.values()],
    requires: of('record')
      .filter(({ type }) => !isLead(type))
      .map(({ owner, type, data }) => plainRequirement({ owner, type, data: normal(Name.parse(owner, zone), type, data) })),
  };
}
