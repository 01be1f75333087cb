import { HostInput, MoveView, WatchView } from '@wanderon/contract';
import { until } from '../../../command/src/api';
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

  it('is held against the spelling at which visitors are to end', async () => {
    const { api } = world;
    const { moves } = await api.call<{ moves: { id: string; domain: string }[] }>('GET', '/api/moves?state=open&order=due&limit=50');
    const id = moves.find((one) => one.domain === DOMAIN)!.id;
    const leg = (await api.call<MoveView>('GET', `/api/moves/${id}`)).legs[0]!.id;
    const watch = (): Promise<WatchView> => api.call('GET', `/api/legs/${leg}/watch`);
    const wish = (main: string | null, provisional: string | null): Promise<unknown> => api.call('PUT', `/api/legs/${leg}/site`, { main, provisional });
    expect((await watch()).site).toEqual({
      spellings: [DOMAIN, `www.${DOMAIN}`],
      main: null,
      provisional: null,
      forms: 'canoe-yard.sites.larkspur.example',
    });
    // This host leads everybody to www.
    await wish(DOMAIN, null);
    const wrong = await until('it is told that visitors end elsewhere', async () =>
      (await watch()).website!.changes.find(({ text }) => text.endsWith(`and ${DOMAIN} is the main spelling`)),
    );
    expect(wrong).toMatchObject({ weight: 'broken', pages: expect.arrayContaining([`https://${DOMAIN}/`, `https://www.${DOMAIN}/`]) });
    await wish(`www.${DOMAIN}`, 'canoe-yard.sites.larkspur.example');
    const { website } = await until('it is as it should be', async () => {
      const now = await watch();
      return now.website!.changes.every(({ text }) => !text.includes('main spelling')) && now.website!.asked >= 6 ? now : undefined;
    });
    // Before the switch the site may well be shown there.
    expect(website!.changes.filter(({ weight }) => weight === 'broken')).toEqual([]);
    await expect(wish('shop.canoe-yard.example', null)).rejects.toThrow(/does not lead shop\.canoe-yard\.example anywhere/);
    await expect(wish(null, 'http://here/')).rejects.toThrow(/A name such as/);
    await api.call('POST', `/api/legs/${leg}/undo`, {});
    expect((await watch()).site).toMatchObject({ main: DOMAIN, provisional: null });
  });
});
