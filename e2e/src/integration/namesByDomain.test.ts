import { Host } from '@wanderon/contract';
import { Name, USUAL_HABITS } from '@wanderon/core';
import { Driver } from '../support/drive';
import { World, openWorld } from '../support/world';

const ZONE = 'canoe-yard.example.';
/** What the host gave this domain: two of the servers that it has. */
const GIVEN = ['ns1.quillmere.example.', 'ns3.quillmere.example.'];

/** A DNS host that gives each domain nameservers of its own, which are known once the domain was added there. */
describe('a host whose nameservers are the domain’s own', () => {
  let world: World;
  beforeAll(async () => {
    world = await openWorld({ rate: 60 });
  });
  afterAll(() => world.close());

  it('is chosen before they are known; they are said once, read back, and the domain goes to these and no others', async () => {
    const { api, lab } = world;
    const admin = await world.server.signIn('admin');
    const { key } = lab.hosts.find((host) => host.id === 'quillmere')!;
    await admin.call('POST', '/api/hosts', {
      ...{ name: 'Quillmere pool', role: 'dns', nameservers: [], addresses: [], aliasTarget: null, requires: [], note: '' },
      ...{ updateAddress: null, key, habits: { ...USUAL_HABITS, nameservers: 'by domain', warnings: ['Name looks odd'] } },
    });
    const driver = await Driver.begin(api, 'canoe-yard.example');
    await driver.done('survey');
    await driver.act('/hosts', { newDnsHost: await driver.hostId('Quillmere pool'), newWebHost: await driver.hostId('Thornwick') });
    const chosen = (await driver.move()).legs[0]!;
    expect(chosen.newNameservers).toEqual([]);
    expect(chosen.steps.find((step) => step.id === 'named')!.state).toBe('ready');
    const line = { key: 'named', holds: false, waivable: false };
    expect(chosen.gate.lines).toContainEqual(expect.objectContaining(line));
    await expect(driver.act('/push')).rejects.toThrow(/Say first which nameservers Quillmere pool gave this domain/);
    await expect(driver.act('/submitted')).rejects.toThrow(/gate|not ready|names|known/i);

    // In the host's panel the domain is added, and it shows two names.
    const leg = `/api/legs/${chosen.id}`;
    lab.addDomain('quillmere', ZONE);
    const zone = lab.dnsHosts.get('quillmere')!.zones.get(Name.parse(ZONE).key)!;
    zone.put(
      Name.parse(ZONE),
      2,
      3600,
      GIVEN.map((name) => Name.parse(name).wire),
    );
    lab.dnsHosts.get('quillmere')!.spread(zone);
    const names = (list: readonly string[]): Promise<unknown> => api.call('PUT', `${leg}/nameservers`, { names: list });
    await expect(names([])).rejects.toThrow(/No name was given/);
    await expect(names(['ns1.oldquay.example', 'ns2.oldquay.example'])).rejects.toThrow(/that the domain has now|of the set that the domain has/);
    await expect(names(['a..b', 'ns1.quillmere.example'])).rejects.toThrow(/not a name/);
    // First one of a numbered series is mistaken: what the new zone itself says is held against it.
    await names(['ns1.quillmere.example', 'ns2.quillmere.example']);
    await driver.act('/push');
    await driver.until('the other NS set at the apex is noticed', (move) =>
      /as nameserver, which is not of the new set|does not name /.test(move.legs[0]!.steps.find((step) => step.id === 'served')!.text ?? ''),
    );
    expect((await driver.move()).legs[0]!.gate.open).toBe(false);
    await names(GIVEN);
    await driver.done('served');
    // Chosen again, the host gives this domain no others.
    await driver.act('/hosts', { newDnsHost: await driver.hostId('Quillmere pool'), newWebHost: await driver.hostId('Thornwick') });
    expect((await driver.move()).legs[0]!.newNameservers).toEqual(GIVEN);
    await driver.done('served');
    const served = await driver.ledger();
    expect([...new Set(served.served!.servers.map((one) => one.server))].sort()).toEqual([...GIVEN].sort());

    await driver.act('/approve', { lowerAt: null, plannedSwitch: null });
    await driver.done('lowered');
    lab.clock.setRate(3600);
    await driver.until('the gate opens', (move) => move.legs[0]!.gate.open);
    lab.clock.setRate(60);
    await driver.letPass();
    await driver.act('/submitted');
    await expect(names(['ns1.quillmere.example', 'ns2.quillmere.example'])).rejects.toThrow(/under way/);
    lab.changeNameservers(ZONE, GIVEN);
    await driver.done('switch');
    const { events } = await driver.call<{ events: { kind: string; text: string }[] }>('GET', `/api/moves/${driver.id}/events`);
    expect(events.filter((event) => event.kind === 'named').map((event) => event.text)).toEqual([
      'Quillmere pool gave this domain ns1.quillmere.example, ns3.quillmere.example.',
      'Quillmere pool gave this domain ns1.quillmere.example, ns2.quillmere.example.',
    ]);
  });

  it('is recognised by servers that are like those which it gave to others', async () => {
    const admin = await world.server.signIn('admin');
    const { hosts } = await admin.call<{ hosts: Host[] }>('GET', '/api/hosts');
    const { id, ...oldquay } = hosts.find((host) => host.name.startsWith('Oldquay'))!;
    const found = async (habit: 'fixed' | 'by domain', domain: string): Promise<string | null> => {
      const habits = { ...oldquay.habits, nameservers: habit };
      await admin.call('PUT', `/api/hosts/${id}`, { ...oldquay, habits, nameservers: ['ns9.oldquay.example.'], addresses: [] });
      const driver = await Driver.begin(world.api, domain);
      return (await driver.done('survey')).legs[0]!.oldDnsHost;
    };
    // None of its servers is one of the domain's: what is alike says something only where it gives each domain its own.
    expect(await found('fixed', 'gull-radio.example')).toBeNull();
    expect(await found('by domain', 'lighthouse-museum.example')).toBe(id);
  });
});
