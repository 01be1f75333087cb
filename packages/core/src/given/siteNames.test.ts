import { Name } from '../dns/name';
import { rrsetFromText } from '../dns/record';
import { PageLook } from '../survey/website';
import { endsAt, siteWorld } from '../testing/siteWorld';
import { proposeRulings } from '../rebuild/propose';
import { GivenItem } from './givenItem';
import { frontOf } from './front';
import { parkedPage } from './parkedPage';
import { siteNames } from './siteNames';

const WORLDS = Number(process.env.SITE_WORLDS ?? 300);
const NEW = ['203.0.113.80', '2001:db8:7::80', 'sites.thornwick.example.'];

const item = (kind: GivenItem['kind'], owner: string, type: string, data: string): GivenItem => ({ kind, owner, type, data, doubts: [] });

/** What new places give: an address, two families, an alias alone, or an address and an alias for `www`. */
const GIVEN: readonly (readonly GivenItem[])[] = [
  [item('address', '', 'A', NEW[0]!)],
  [item('address', '', 'A', NEW[0]!), item('address', '', 'AAAA', NEW[1]!)],
  [item('record', 'www', 'CNAME', NEW[2]!)],
  [item('record', '@', 'A', NEW[0]!), item('record', 'www', 'CNAME', NEW[2]!)],
  [item('record', '@', 'A', NEW[0]!), item('record', 'www', 'A', NEW[0]!)],
];

it('leaves no name behind that shows the website today, and changes none that does not, without saying so', () => {
  let moved = 0;
  let said = 0;
  for (let seed = 1; seed <= WORLDS; seed++) {
    const world = siteWorld(seed);
    const given = GIVEN[seed % GIVEN.length]!;
    const zone = world.zone.toString();
    const front = frontOf({
      ...{ given, said: {}, zone: world.zone, scope: { kind: 'whole' }, found: world.found, pages: world.pages, fronted: world.fronted },
      ...{ nameservers: ['ns1.saltmarsh.example.', 'ns2.saltmarsh.example.'], oldWeb: [], knownWeb: () => undefined },
    });
    const newDns = { name: 'New DNS', nameservers: [], addresses: [], aliasTarget: undefined, requires: [] };
    const rulings = front.withGiven(proposeRulings(world.zone, world.found, { oldWeb: [], newDns, newWeb: front.newWeb, fronted: world.fronted }), {
      webMoves: true,
      byTicks: true,
    });
    const planned = rulings.flatMap((row) => (row.planned ? [row.planned] : []));
    const told = new Map(front.names.map((name) => [name.owner, name]));
    const names = new Set(world.sets.filter(({ type }) => ['A', 'AAAA', 'CNAME'].includes(type)).map(({ owner }) => owner.toLowerCase()));
    for (const owner of names) {
      const shown = owner === zone ? '@' : owner.slice(0, -zone.length - 1);
      const before = endsAt(world.sets, zone, owner);
      const after = endsAt(planned, zone, owner);
      const showed = world.shows.has(owner);
      const leadThere = before.some((one) => world.site.has(one));
      // One that shows the page at another address stays there, or leaves it.
      const stillOld = after.some((one) => (leadThere ? world.site.has(one) : before.includes(one)));
      const where = `world ${seed}, ${shown}: ${before.join(' ')} -> ${after.join(' ')}`;
      if (showed && stillOld) {
        said += 1;
        const name = told.get(shown);
        // What it follows is told in its place.
        if (!name || (name.isFree && name.moves)) throw new Error(`left behind unsaid, ${where}`);
      }
      if (showed && !stillOld) {
        moved += 1;
        if (after.length === 0) throw new Error(`leads nowhere any more, ${where}`);
      }
      if (!showed && after.join() !== before.join() && !told.has(shown)) throw new Error(`changed unsaid, ${where}`);
    }
    if (world.pages.some(({ start }) => /^https:\/\/(www\.)?kelp\.example\//.test(start)))
      expect(`world ${seed}: ${parkedPage(world.zone, world.pages) !== undefined}`).toBe(`world ${seed}: ${world.isParked}`);
  }
  // Both happen often enough to mean something.
  expect(moved).toBeGreaterThan(WORLDS);
  expect(said).toBeGreaterThan(WORLDS / 4);
});

describe('a name at another address', () => {
  const zone = Name.parse('kelp.example.');
  const sets = [
    ['kelp.example.', '198.51.100.80'],
    ['en.kelp.example.', '192.0.2.10'],
    ['shop.kelp.example.', '192.0.2.11'],
    ['old.kelp.example.', '192.0.2.12'],
  ].map(([owner, address]) => rrsetFromText({ owner: owner!, type: 'A', ttl: 3600, data: [address!] }));
  const look = (host: string, fingerprint: string, end = host): PageLook => ({
    start: `https://${host}/`,
    hops: [...new Set([host, end])].map((at) => ({ url: `https://${at}/`, address: '192.0.2.1', status: 200, certificate: null })),
    problem: null,
    keepsPath: null,
    page: { title: null, fingerprint, octets: 1, cut: false, headers: {} },
  });

  it('goes along where it shows the same page itself, and not where it leads there, or shows another', () => {
    const pages = [look('kelp.example', 'aa'), look('en.kelp.example', 'aa'), look('shop.kelp.example', 'bb'), look('old.kelp.example', 'aa', 'kelp.example')];
    const none = { said: new Map<string, boolean>(), given: new Set<string>(), oldWeb: [], newWeb: undefined };
    expect(siteNames({ zone, scope: { kind: 'whole' }, found: sets, pages, ...none }).map(({ owner, why }) => [owner, why])).toEqual([
      ['@', 'leads to the website'],
      ['en', 'shows the same page'],
    ]);
  });
});
