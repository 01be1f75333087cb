import { HostInput, MoveView } from '@wanderon/contract';
import { Driver } from '../support/drive';
import { World, openWorld } from '../support/world';

const DOMAIN = 'canoe-yard.example';

/** A web host that answers with a page and 200 for domains of which it has nothing. */
describe('a website that is not there yet, where everything answers 200', () => {
  let world: World;
  beforeAll(async () => {
    world = await openWorld({ rate: 60 });
  });
  afterAll(() => world.close());

  it('is not taken for a website, once the agency has noted how that page is titled', async () => {
    const { api, lab } = world;
    const driver = await Driver.begin(api, DOMAIN);
    await driver.done('survey');
    await driver.act('/hosts', { newDnsHost: await driver.hostId('Quillmere'), newWebHost: await driver.hostId('Larkspur') });
    lab.addDomain('quillmere', `${DOMAIN}.`);
    const looked = async (matches: RegExp): Promise<unknown> => {
      await driver.act('/website');
      const line = (move: MoveView): MoveView['legs'][number]['gate']['lines'][number] => move.legs[0]!.gate.lines.find((one) => one.key === 'website')!;
      return line(await driver.until(`the look says ${matches}`, (move) => matches.test(line(move).text)));
    };
    const unknown = await looked(/shows its page for domains that it does not know/);
    expect(unknown).toMatchObject({ holds: false, text: expect.stringContaining('“No site here”') });
    const { hosts } = await api.call<{ hosts: (HostInput & { id: string; holding: string[] })[] }>('GET', '/api/hosts');
    expect(hosts.find((host) => host.name.startsWith('Larkspur'))!.holding).toEqual(['No site here']);
    // Added there, the same address answers for the domain.
    await fetch(`${lab.address}/larkspur/domain`, { method: 'POST', body: new URLSearchParams({ name: DOMAIN }) });
    expect(await looked(/answers for the domain/)).toMatchObject({ holds: true });
  });
});
