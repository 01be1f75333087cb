import { Name } from '../dns/name';
import { RRset, RRsetText, rrsetFromText } from '../dns/record';
import { PageLook } from '../survey/website';
import { Random } from './texts/random';

/** A zone with a website, of which it is known what each name shows; made without any rule of the program. */
export interface SiteWorld {
  readonly seed: number;
  readonly zone: Name;
  readonly sets: readonly RRsetText[];
  readonly found: readonly RRset[];
  readonly pages: readonly PageLook[];
  /** Addresses and outside names at which the domain's own website answers. */
  readonly site: ReadonlySet<string>;
}

const SITE = ['198.51.100.80', '198.51.100.81', '2001:db8:5a17::80'];
const ELSEWHERE = ['192.0.2.10', '192.0.2.11', '2001:db8:9::1'];
const NAMES = ['blog', 'shop', 'blue', 'harbour', 'files', 'kelp2', 'intern', 'db', 'git', 'vpn', 'mail', 'imap', 'ftp', 'cloud', 'm', 'en', 'de'];

/** The same seed makes the same world. */
export function siteWorld(seed: number): SiteWorld {
  const random = new Random(seed + 31_000);
  const apex = 'kelp.example.';
  const sets = new Map<string, RRsetText>();
  const put = (owner: string, type: string, data: readonly string[]): void => {
    const name = owner === '@' ? apex : `${owner}.${apex}`;
    const key = `${name}/${type}`;
    // An alias stands alone.
    if (type === 'CNAME' ? [...sets.values()].some((set) => set.owner === name) : sets.has(`${name}/CNAME`)) return;
    if (!sets.has(key)) sets.set(key, { owner: name, type, ttl: 3600, data: [...data] });
  };
  const hasAlias = random.chance(0.4);
  const target = 'sites.saltmarsh.example.';
  const v4 = SITE.slice(0, random.chance(0.2) ? 2 : 1);
  const v6 = random.chance(0.4) ? [SITE[2]!] : [];
  put('@', 'SOA', [`ns1.saltmarsh.example. host.saltmarsh.example. 1 2 3 4 5`]);
  put('@', 'NS', ['ns1.saltmarsh.example.', 'ns2.saltmarsh.example.']);
  put('@', 'A', v4);
  if (v6.length > 0) put('@', 'AAAA', v6);
  if (hasAlias) put('www', 'CNAME', [target]);
  else if (random.chance(0.5)) put('www', 'CNAME', [apex]);
  else {
    put('www', 'A', v4);
    if (v6.length > 0) put('www', 'AAAA', v6);
  }
  const pages: PageLook[] = [];
  for (let count = random.below(10); count > 0; count--) {
    const name = random.pick(NAMES);
    const kind = random.below(7);
    if (kind <= 1) put(name, 'A', [random.pick(v4)]);
    else if (kind === 2) put(name, 'CNAME', [random.pick([apex, `www.${apex}`, hasAlias ? target : apex])]);
    else if (kind === 3) put(name, 'A', [random.pick(ELSEWHERE.slice(0, 2))]);
    else if (kind === 4) put(name, 'CNAME', ['edge.brinepost.example.']);
    else if (kind === 5) {
      put(name, 'A', [random.pick(v4)]);
      put(name, 'AAAA', [ELSEWHERE[2]!]);
    } else put(name, 'CNAME', [`${random.pick(NAMES)}.${apex}`]);
  }
  if (random.chance(0.25)) put('*', random.chance(0.5) ? 'A' : 'CNAME', random.chance(0.5) ? [v4[0]!] : [apex]);
  for (const [owner, set] of sets)
    if (set.type === 'CNAME' ? !set.data[0]!.includes('.example.') : set.type === 'A' && !set.data[0]!.includes('.')) sets.delete(owner);
  const star = sets.get(`*.${apex}/A`);
  if (star?.data[0]!.endsWith('.')) sets.set(`*.${apex}/A`, { ...star, data: [v4[0]!] });
  const starAlias = sets.get(`*.${apex}/CNAME`);
  if (starAlias && !starAlias.data[0]!.endsWith('.')) sets.set(`*.${apex}/CNAME`, { ...starAlias, data: [apex] });
  if (random.chance(0.6)) put('@', 'MX', [random.pick(['10 mail.kelp.example.', '10 mx1.brinepost.example.', '10 imap.kelp.example.'])]);
  if (random.chance(0.3)) put('_imaps._tcp', 'SRV', [`0 1 993 ${random.pick(['imap', 'mail', 'blue'])}.kelp.example.`]);
  if (random.chance(0.2)) put('sub', 'NS', [`${random.pick(['blue', 'harbour'])}.kelp.example.`]);
  const found = [...sets.values()].map(rrsetFromText);
  return { seed, zone: Name.parse(apex), sets: [...sets.values()], found, pages, site: new Set([...SITE, target]) };
}

/**
 * Where a name ends up by these sets: addresses, or a name outside the zone; nothing where it has neither. A resolver in a dozen lines, with
 * wildcards (RFC 4592) and aliases.
 */
export function endsAt(sets: readonly RRsetText[], zone: string, name: string): readonly string[] {
  let at = name.toLowerCase();
  for (let hop = 0; hop < 10; hop++) {
    if (at !== zone && !at.endsWith(`.${zone}`)) return [at];
    const own = sets.filter((set) => set.owner.toLowerCase() === at);
    const exists = sets.some((set) => set.owner.toLowerCase() === at || set.owner.toLowerCase().endsWith(`.${at}`));
    const rows = exists ? own : sets.filter((set) => set.owner.toLowerCase() === `*.${zone}`);
    const alias = rows.find(({ type }) => type === 'CNAME');
    if (!alias) return rows.filter(({ type }) => type === 'A' || type === 'AAAA').flatMap(({ data }) => data);
    at = alias.data[0]!.toLowerCase();
  }
  return [];
}
