import { Driver, stepOf } from '../support/drive';
import { World, openWorld } from '../support/world';

const ZONE = 'canoe-yard.example.';
const quillmere = (...numbers: readonly string[]): string[] => numbers.map((number) => `${number}.quillmere.example.`);

/** What somebody typed wrongly at the registrar, as the registry then publishes it. */
const SLIPS: readonly [string, readonly string[], RegExp][] = [
  ['a name left from before', [...quillmere('ns1', 'ns2', 'ns3'), 'ns2.oldquay.example.'], /ns2\.oldquay\.example is left from before: take it out/],
  ['only some fields saved', quillmere('ns1', 'ns3'), /ns2\.quillmere\.example is missing: that field was not saved/],
  ['a digit of a series', quillmere('ns1', 'ns2', 'ns4'), /ns4\.quillmere\.example has another number: it is ns3\.quillmere\.example/],
  [
    'a slip of the finger',
    [...quillmere('ns1', 'ns2'), 'ns3.quillmeer.example.'],
    /is misspelt: it is ns3\..* leads into quillmeer\.example, which is not the host’s/,
  ],
  ['the set of another host', ['dns-a.pebbledock.example.', 'dns-b.pebbledock.example.'], /dns-a\.pebbledock\.example is a nameserver of Pebbledock DNS/],
  ['the domain appended', ['ns1', 'ns2', 'ns3'].map((ns) => `${ns}.quillmere.example.${ZONE}`), /has the domain appended: it is ns1\.quillmere\.example/],
];

describe('a nameserver set that was typed wrongly', () => {
  let world: World;
  beforeAll(async () => {
    world = await openWorld({ rate: 60 });
  });
  afterAll(() => world.close());

  it('is read back from the parent, each slip named, and the move goes on once it is right', async () => {
    const { lab, api } = world;
    const driver = await Driver.begin(api, 'canoe-yard.example');
    await driver.done('survey');
    const { hosts } = await api.call<{ hosts: { id: string; name: string; nameservers: string[] }[] }>('GET', '/api/hosts');
    expect(hosts.find((host) => host.name === 'Pebbledock DNS')!.nameservers).toContain('dns-a.pebbledock.example.');
    await driver.act('/hosts', { newDnsHost: await driver.hostId('Quillmere'), newWebHost: await driver.hostId('Thornwick') });
    lab.addDomain('quillmere', ZONE);
    await driver.act('/push');
    await driver.done('served');
    await driver.act('/approve', { lowerAt: null, plannedSwitch: null });
    await driver.done('lowered');
    lab.clock.setRate(3600);
    await driver.until('the gate opens', (move) => move.legs[0]!.gate.open);
    lab.clock.setRate(60);
    await driver.act('/submitted');
    for (const [what, names, words] of SLIPS) {
      lab.changeNameservers(ZONE, names);
      const told = await driver.until(`the slip is named: ${what}`, (move) => words.test(stepOf(move, 'switch').text ?? ''));
      expect(told.legs[0]!.seen.t0).toBeNull();
    }
    lab.changeNameservers(ZONE, quillmere('ns1', 'ns2', 'ns3'));
    await driver.done('switch');
  });
});
