import { FrontView, Host } from '@wanderon/contract';
import { Driver } from '../support/drive';
import { World, openWorld } from '../support/world';

const server = (data: string) => ({ kind: 'nameserver', owner: '@', type: 'NS', data });
const record = (owner: string, type: string, data: string) => ({ kind: 'record', owner, type, data });
const HEARTH = [
  server('ns1.hearth.example.'),
  server('ns2.hearth.example.'),
  record('@', 'A', '203.0.113.210'),
  record('www', 'CNAME', 'sites.hearth.example.'),
  record('@', 'TXT', '"hearth=1"'),
];

/** What follows from what a new place gave, as the server works it out and keeps it. */
describe('the front door of a move', () => {
  let world: World;
  let driver: Driver;
  const front = async (given: object | null): Promise<FrontView> => driver.call('POST', `${await driver.leg()}/front`, { given });
  const hosts = async (query = ''): Promise<Host[]> => (await world.api.call<{ hosts: Host[] }>('GET', `/api/hosts${query}`)).hosts;

  beforeAll(async () => {
    world = await openWorld({ rate: 1 });
    driver = await Driver.begin(world.api, 'lighthouse-museum.example');
    await driver.done('survey');
  });
  afterAll(() => world.close());

  it.each([
    [{ items: [server('not a name at all..')] }, /no name of a nameserver/],
    [{ items: [record('@', 'A', '203.0.113.999')] }, /This is no A record/],
    [{ items: [record('a..b', 'A', '203.0.113.9')] }, /name of this record cannot be read/],
    [{ items: [record('@', 'BLOB', 'x')] }, /BLOB is not a record type/],
    [{ items: [{ kind: 'address', owner: '', type: 'A', data: '<b>' }] }, /not an IPv4 or IPv6 address/],
    [{ items: [], names: { 'a..b': true } }, /One of the names cannot be read/],
    [{ items: Array.from({ length: 301 }, (_, index) => record(`n${index}`, 'A', '203.0.113.9')) }, /There can be 300 of them/],
  ])('refuses what cannot be read: %#', async (given, problem) => {
    await expect(front(given)).rejects.toThrow(problem);
    await expect(driver.act('/hosts', { way: 'nameservers', newDnsHost: null, newWebHost: null, given })).rejects.toThrow(problem);
  });

  it('knows a host by what it gave, also where only one of its addresses is given', async () => {
    const known = await front({ items: [...['ns1', 'ns2', 'ns3'].map((one) => server(`${one}.quillmere.example.`)), record('@', 'A', '203.0.113.80')] });
    expect([known.dns, known.web]).toMatchObject([{ name: 'Quillmere DNS', keyed: true }, { name: 'Thornwick Web' }]);
    // Two of the three are another set than that of the host.
    expect((await front({ items: [server('ns1.quillmere.example.'), server('ns2.quillmere.example.')] })).dns).toEqual({
      id: null,
      name: 'quillmere.example',
      keyed: false,
    });
  });

  it('makes the plan of it, keeps it with the move, and the place for this move alone until somebody saves it as a host', async () => {
    const before = (await hosts()).length;
    await driver.act('/hosts', { way: 'nameservers', newDnsHost: null, newWebHost: null, given: { items: HEARTH, names: { www: true } } });
    const { rulings } = await driver.ledger();
    const planned = (owner: string, type: string): unknown => rulings.find((row) => row.owner === owner && row.type === type)?.planned?.data;
    expect(planned('lighthouse-museum.example.', 'A')).toEqual(['203.0.113.210']);
    expect(planned('www.lighthouse-museum.example.', 'CNAME')).toEqual(['sites.hearth.example.']);
    expect(planned('lighthouse-museum.example.', 'TXT')).toEqual(expect.arrayContaining(['"hearth=1"']));
    const leg = (await driver.move()).legs[0]!;
    expect(leg.newNameservers).toEqual(['ns1.hearth.example.', 'ns2.hearth.example.']);
    expect((await hosts()).length).toBe(before);
    const places = async (): Promise<Host[]> => (await hosts(`?move=${(await driver.move()).id}`)).filter((host) => host.ofMove !== null);
    expect((await places()).map(({ name, role }) => [role, name])).toEqual([
      ['dns', 'hearth.example'],
      ['web', 'hearth.example'],
    ]);
    expect((await front(null)).given.items.map(({ data }) => data)).toEqual(HEARTH.map(({ data }) => data));

    // Chosen anew with the same, it is the same place; a name that stays is left alone.
    await driver.act('/hosts', { way: 'nameservers', newDnsHost: null, newWebHost: null, given: { items: HEARTH, names: { www: false } } });
    expect((await places()).length).toBe(2);
    expect((await driver.ledger()).rulings.find((row) => row.owner === 'www.lighthouse-museum.example.' && row.type === 'CNAME')).toMatchObject({
      ruling: 'carry',
    });

    const [dns] = await places();
    await expect(world.api.call('POST', `/api/hosts/${dns!.id}/keep`, { name: 'Quillmere DNS' })).rejects.toThrow(/There is a host named Quillmere DNS/);
    await world.api.call('POST', `/api/hosts/${dns!.id}/keep`, { name: 'Hearth' });
    await expect(world.api.call('POST', `/api/hosts/${dns!.id}/keep`, { name: 'Hearth again' })).rejects.toThrow(/kept as a host already/);
    expect((await hosts()).length).toBe(before + 1);
    // The move goes on with it, and the next one knows it.
    expect((await driver.move()).to).toBe('Hearth');
    const other = await Driver.begin(world.api, 'canoe-yard.example');
    await other.done('survey');
    const view = await other.call<FrontView>('POST', `${await other.leg()}/front`, { given: { items: HEARTH } });
    expect([view.dns?.name, view.fit[0]]).toEqual(['Hearth', 'nameservers']);
  });

  it('adds what comes later to the plan that there is: what people decided stands, and what is given now counts where both speak', async () => {
    const other = await Driver.begin(world.api, 'tidewater-choir.example');
    await other.done('survey');
    const choose = (items: readonly object[]) =>
      other.act('/hosts', { way: 'nameservers', newDnsHost: null, newWebHost: null, given: { items: [...HEARTH.slice(0, 4), ...items], names: {} } });
    await choose([]);
    const row = async (owner: string, type: string) => (await other.ledger()).rulings.find((one) => one.owner === owner && one.type === type);
    const ruled = async (owner: string, type: string, edit: object) => other.call('PUT', `${await other.leg()}/rulings/${(await row(owner, type))!.id}`, edit);
    await ruled('tidewater-choir.example.', 'MX', { ruling: 'drop' });
    await ruled('www.tidewater-choir.example.', 'CNAME', { ruling: 'carry' });
    await other.act('/approve', { lowerAt: null, plannedSwitch: null, lowerTo: 300 });
    const mx = (await row('tidewater-choir.example.', 'MX'))!;

    const asked = await other.call<FrontView>('POST', `${await other.leg()}/front`, { given: { items: HEARTH } });
    expect(asked.isAddition).toBe(true);
    const token = record('_proof', 'TXT', '"hearth=2"');
    const added = await choose([token]);
    expect(added.legs[0]!.approved).toBe(true);
    expect((await row('_proof.tidewater-choir.example.', 'TXT'))!.planned!.data).toEqual(['"hearth=2"']);
    expect(await row('tidewater-choir.example.', 'MX')).toMatchObject({ id: mx.id, ruling: 'drop', decidedBy: mx.decidedBy });
    // Given otherwise than it was, the alias counts against the word of before.
    const otherSite = record('www', 'A', '203.0.113.210');
    const items = [...HEARTH.slice(0, 3), otherSite, token];
    await other.act('/hosts', { way: 'nameservers', newDnsHost: null, newWebHost: null, given: { items, names: { www: true } } });
    expect(await row('www.tidewater-choir.example.', 'A')).toMatchObject({ planned: { data: ['203.0.113.210'] } });
    expect((await row('www.tidewater-choir.example.', 'CNAME'))?.ruling ?? 'drop').toBe('drop');

    // Other nameservers are another plan: the timetable goes, and the word about mail stays.
    const [, , ...rest] = items;
    const elsewhere = [server('ns1.cove.example.'), server('ns2.cove.example.'), ...rest];
    expect((await other.call<FrontView>('POST', `${await other.leg()}/front`, { given: { items: elsewhere } })).isAddition).toBe(false);
    const anew = await other.act('/hosts', { way: 'nameservers', newDnsHost: null, newWebHost: null, given: { items: elsewhere, names: { www: true } } });
    expect(anew.legs[0]!.approved).toBe(false);
    expect(await row('tidewater-choir.example.', 'MX')).toMatchObject({ ruling: 'drop', decidedBy: mx.decidedBy });
    expect((await row('_proof.tidewater-choir.example.', 'TXT'))!.planned!.data).toEqual(['"hearth=2"']);
    const { events } = await other.call<{ events: { text: string }[] }>('GET', `/api/moves/${other.id}/events`);
    expect(events.map(({ text }) => text)).toEqual(
      expect.arrayContaining([expect.stringMatching(/^What the new place gave was added to the plan: _proof\.tidewater-choir\.example TXT is otherwise/)]),
    );
  });

  it('asks what mail would change, and takes neither what is there already nor what stays where it is', async () => {
    const other = await Driver.begin(world.api, 'gull-radio.example');
    await other.done('survey');
    const items = [record('@', 'MX', '10 mx.hearth.example.'), record('@', 'A', '198.51.100.80'), record('@', 'A', '203.0.113.210')];
    const view = await other.call<FrontView>('POST', `${await other.leg()}/front`, { given: { items } });
    expect(view.items.map(({ isTaken, use, question }) => [isTaken, use, question !== null])).toEqual([
      [false, 'record', true],
      [false, 'none', false],
      [true, 'website', false],
    ]);
    expect([view.fit, view.missing.repoint]).toEqual([['repoint'], undefined]);
    expect(view.names.find(({ owner }) => owner === '@')).toMatchObject({ moves: true, then: ['203.0.113.210'] });
  });
});
