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
  /** Addresses and outside names at which the domain's own website answers; those of the front included, where the domain is fronted. */
  readonly site: ReadonlySet<string>;
  /** Sets as the DNS host's front answered them: where they lead, nobody sees. */
  readonly fronted: readonly RRsetText[];
  /** Names, with final dot, that show the domain's website today: they lead there, or answer with its page themselves. */
  readonly shows: ReadonlySet<string>;
  /** The domain is not used: its page says so. */
  readonly isParked: boolean;
}

const SITE = ['198.51.100.80', '198.51.100.81', '2001:db8:5a17::80'];
const ELSEWHERE = ['192.0.2.10', '192.0.2.11', '2001:db8:9::1'];
/** Where a front answers, and a service that leads visitors of the domain itself on to `www`. */
const FRONT = ['192.0.2.200', '192.0.2.201'];
const REDIRECTOR = '192.0.2.77';
const TITLES = ['Kelp Street Choir', 'Harbour Park', 'Parking at the harbour', 'Construction and repair of boats', 'Kelp', ''];
const UNUSED_TITLES = [
  'kelp.example is parked',
  'Hier entsteht eine neue Website',
  'Deze domeinnaam is gereserveerd',
  'Site en construction',
  'This domain is for sale',
];
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
  // The domain itself at a service that leads on to `www`: both show the website, whose address is seen where a page was.
  const isLed = random.chance(0.15);
  const v4 = SITE.slice(0, !isLed && random.chance(0.2) ? 2 : 1);
  const v6 = random.chance(0.4) ? [SITE[2]!] : [];
  put('@', 'SOA', [`ns1.saltmarsh.example. host.saltmarsh.example. 1 2 3 4 5`]);
  put('@', 'NS', ['ns1.saltmarsh.example.', 'ns2.saltmarsh.example.']);
  const isParked = random.chance(0.15);
  const isFronted = !isLed && random.chance(0.2);
  put('@', 'A', isLed ? [REDIRECTOR] : v4);
  if (v6.length > 0 && !isLed) put('@', 'AAAA', v6);
  if (hasAlias) put('www', 'CNAME', [target]);
  else if (!isLed && random.chance(0.5)) put('www', 'CNAME', [apex]);
  else {
    put('www', 'A', v4);
    if (v6.length > 0) put('www', 'AAAA', v6);
  }
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
  const stored = [...sets.values()];
  const site = new Set([...SITE, target, ...(isLed ? [REDIRECTOR] : [])]);
  const fronts = new Set<string>();
  for (const { owner, type } of stored) {
    const isOwn = owner === apex || owner === `www.${apex}`;
    if ((type === 'A' || type === 'CNAME') && !owner.startsWith('*') && isFronted && (isOwn || random.chance(0.3))) fronts.add(owner);
  }
  const { pages, shows } = pagesOf(random, { zone: apex, stored, fronts, site, isParked, isFronted, redirector: isLed ? REDIRECTOR : undefined });
  // What is asked of a fronted name is answered with the front's addresses, whatever is stored there.
  const lead = (type: string): boolean => type === 'A' || type === 'AAAA' || type === 'CNAME';
  const fronted = [...fronts].map((owner): RRsetText => ({ owner, type: 'A', ttl: 300, data: FRONT }));
  const served = [...stored.filter(({ owner, type }) => !fronts.has(owner) || !lead(type)), ...fronted];
  const found = served.map(rrsetFromText);
  for (const one of fronts.size > 0 ? FRONT : []) site.add(one);
  return { seed, zone: Name.parse(apex), sets: served, found, pages, site, fronted, shows, isParked };
}

interface Stored {
  readonly zone: string;
  readonly stored: readonly RRsetText[];
  readonly site: ReadonlySet<string>;
  readonly isParked: boolean;
  readonly isFronted: boolean;
  /** Names that the front answers. */
  readonly fronts: ReadonlySet<string>;
  /** Leads visitors on to `www`. */
  readonly redirector: string | undefined;
}

/** What a visitor of each name saw, and which names show the domain's website. Servers tell sites apart by name: one that leads there may show another. */
function pagesOf(
  random: Random,
  { zone, stored, fronts, site, isParked, isFronted, redirector }: Stored,
): { readonly pages: readonly PageLook[]; readonly shows: Set<string> } {
  const title = random.pick(isParked ? UNUSED_TITLES : TITLES);
  /** What an outside name of the website leads to is its first address. */
  const answersAt = (host: string): string => {
    const [end] = fronts.has(`${host}.`) ? FRONT : endsAt(stored, zone, `${host}.`);
    return end!.endsWith('.') ? (site.has(end!) ? SITE[0]! : ELSEWHERE[0]!) : end!;
  };
  const pages: PageLook[] = [];
  const shows = new Set<string>();
  let ownSeen = false;
  for (const owner of new Set(stored.filter(({ type }) => ['A', 'AAAA', 'CNAME'].includes(type)).map((set) => set.owner))) {
    const isOwn = owner === zone || owner === `www.${zone}`;
    const ends = endsAt(stored, zone, owner);
    const leads = ends.some((one) => site.has(one));
    const host = owner.slice(0, -1);
    const isLed = redirector !== undefined && ends.includes(redirector);
    const mirrors = !leads && ends.length > 0 && random.chance(0.15);
    const isSame = leads ? isOwn || random.chance(0.7) : mirrors;
    const tells = isOwn || (leads && !isFronted);
    if (tells) shows.add(owner);
    // Nobody looked there, or nothing answered: nobody can know of the page of a name that leads elsewhere, or to what a front hides.
    // The domain's own is always looked at where its address shows nowhere else.
    const unseen = isOwn ? (redirector === undefined ? 0.05 : 0) : 0.2;
    if (ends.length === 0 || owner.startsWith('*') || random.chance(unseen)) continue;
    // A page is the website's where the website's own was seen; the domain's names come first.
    ownSeen ||= isOwn;
    if (isSame && ownSeen) shows.add(owner);
    const led = isLed || (!leads && !mirrors && random.chance(0.2)) ? [host, `www.${zone.slice(0, -1)}`] : [host];
    pages.push({
      start: `https://${host}/`,
      hops: led.map((at) => ({ url: `https://${at}/`, address: answersAt(at), status: 200, certificate: null })),
      problem: null,
      keepsPath: led.length > 1 ? true : null,
      page: {
        title: isSame || led.length > 1 ? title : 'Another site',
        fingerprint: isSame || led.length > 1 ? 'site' : `of ${host}`,
        octets: 900,
        cut: false,
        headers: {},
      },
    });
  }
  return { pages, shows };
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
