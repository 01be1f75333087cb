import { ResolverTrial, ResolverView, WatchView } from '@wanderon/contract';
import { until } from '../../../command/src/api';
import { Driver } from '../support/drive';
import { World, openWorld } from '../support/world';

const LISTED = '/api/resolvers';
/** Nobody is at home there. */
const SILENT = '192.0.2.250';

/** An installation that nobody told of a resolver, and resolvers that people add to it. */
describe('the resolvers that moves are watched from', () => {
  let world: World;
  const list = async (): Promise<ResolverView[]> => (await world.api.call<{ resolvers: ResolverView[] }>('GET', LISTED)).resolvers;
  const names = async (): Promise<string[]> => (await list()).map(({ name }) => name);
  const add = (more: Record<string, unknown>): Promise<{ resolvers: ResolverView[] }> =>
    world.api.call('POST', LISTED, { name: 'Corner office', address: world.lab.lookouts[0]!.address, over: 'udp', ...more });

  beforeAll(async () => {
    world = await openWorld({ unlisted: true, rate: 1 }, { WANDERON_OWN_RESOLVERS: 'yes', WANDERON_LOOK_EVERY: '2' });
  });
  afterAll(() => world.close());

  it('are at first what is asked afresh, from the root servers down', async () => {
    expect(await list()).toEqual([
      { id: null, name: 'Asked afresh', address: '', over: 'afresh', stands: 'from the root servers down', note: 'remembers nothing' },
    ]);
    expect(await world.api.call<ResolverTrial>('POST', `${LISTED}/try`, { name: 'Asked afresh' })).toMatchObject({ problem: null });
  });

  it('are tried when they are added, over UDP or TCP; each name is there once', async () => {
    await expect(add({ address: SILENT })).rejects.toThrow(/"It does not answer: [^"]+".*"field":"address"/);
    await expect(add({ address: 'resolver.office.example' })).rejects.toThrow(/not an IPv4 or IPv6 address/);
    await expect(add({ over: 'tls' })).rejects.toThrow(/name that its certificate is for/);
    await add({ stands: 'the harbour', note: 'with a view' });
    await expect(add({ over: 'tcp' })).rejects.toThrow(/There is a resolver named Corner office already/);
    await add({ name: 'Back room', over: 'tcp' });
    await add({ name: 'Attic', address: SILENT, anyway: true });
    expect(await names()).toEqual(['Asked afresh', 'Corner office', 'Back room', 'Attic']);
    expect(await world.api.call<ResolverTrial>('POST', `${LISTED}/try`, { name: 'Back room' })).toMatchObject({ problem: null });
    expect(await world.api.call<ResolverTrial>('POST', `${LISTED}/try`, { name: 'Attic' })).toMatchObject({ milliseconds: null });
  });

  it('stand in the order that was given, and are taken out; who only looks may do neither', async () => {
    const [, corner, back, attic] = await list();
    await world.api.call('PUT', `${LISTED}/order`, { ids: [attic!.id, back!.id, corner!.id] });
    expect(await names()).toEqual(['Asked afresh', 'Attic', 'Back room', 'Corner office']);
    const viewer = await world.server.signIn('viewer');
    await expect(viewer.call('DELETE', `${LISTED}/${attic!.id}`)).rejects.toThrow(/403/);
    await world.api.call('DELETE', `${LISTED}/${attic!.id}`);
    await expect(world.api.call('DELETE', `${LISTED}/${attic!.id}`)).rejects.toThrow(/404/);
    expect(await names()).toEqual(['Asked afresh', 'Back room', 'Corner office']);
    const { entries } = await (await world.server.signIn('admin')).call<{ entries: { text: string }[] }>('GET', '/api/trail');
    expect(entries.map(({ text }) => text)).toEqual(
      expect.arrayContaining(['The resolver Attic was taken out.', `The resolver Attic at ${SILENT} was added.`]),
    );
  });

  it('are all asked in a move, what is asked afresh from the servers that answer for the domain', async () => {
    const driver = await Driver.begin(world.api, 'gull-radio.example');
    await driver.done('survey');
    await driver.act('/hosts', { newDnsHost: await driver.hostId('Quillmere'), newWebHost: await driver.hostId('Thornwick') });
    await driver.act('/approve', { lowerAt: null, plannedSwitch: null, lowerTo: 60 });
    // Its second server follows after five minutes.
    world.lab.clock.setRate(60);
    await driver.done('lowered');
    const watch = await until('each of them was asked', async () => {
      const view = await driver.call<WatchView>('GET', `${await driver.leg()}/watch`);
      return new Set(view.looks.map(({ lookout }) => lookout)).size === 3 && view;
    });
    const afresh = watch.looks.filter(({ lookout }) => lookout === 'Asked afresh');
    expect(afresh.length).toBeGreaterThan(2);
    // Nothing has changed yet: what stays as it is counts as new.
    for (const { verdict, steady } of afresh) expect(verdict).toBe(steady ? 'new' : 'old');
    expect(watch.lookouts.map(({ name, isAfresh }) => [name, isAfresh])).toEqual([
      ['Asked afresh', true],
      ['Back room', false],
      ['Corner office', false],
    ]);
  });
});
