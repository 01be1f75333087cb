import { RulingView } from '@wanderon/contract';
import { Ruling, legSheet } from '@wanderon/core';
import { Driver, asked } from '../support/drive';
import { World, openWorld } from '../support/world';

const ZONE = 'tidewater-choir.example.';

/** A move by hand to a DNS host that fronts the website's names whatever one wants: as the plan has it, or not. */
describe('names that the new DNS host fronts', () => {
  let world: World;
  let driver: Driver;
  beforeAll(async () => {
    world = await openWorld({ rate: 60 });
    driver = await Driver.begin(world.api, ZONE.slice(0, -1));
    await driver.done('survey');
    await driver.act('/hosts', { newDnsHost: await driver.hostId('Brackenfold'), newWebHost: await driver.hostId('Thornwick') });
    await driver.way('push', 'leave');
    const panel = async (path: string, fields: Record<string, string>): Promise<void> => {
      const answer = await fetch(`${world.lab.address}/panel/brackenfold/${path}`, { method: 'POST', body: new URLSearchParams(fields) });
      expect([path, fields, answer.ok]).toEqual([path, fields, true]);
    };
    await panel('domain', { name: ZONE });
    const { entry } = world.lab.scenario().hosts.find((host) => host.id === 'brackenfold')!;
    const rows = legSheet({ kind: 'delegation', isBack: false, rulings: await rulings(), served: null }, ZONE, { entry: entry! });
    for (const { entry: typed } of rows) {
      const { name, type, priority = '', value, ttl = '' } = typed!;
      await panel('add', { zone: ZONE, name, type, priority, value, ttl });
    }
  });
  afterAll(() => world.close());

  const rulings = async (): Promise<(Ruling & Pick<RulingView, 'fronting'>)[]> =>
    (await driver.ledger()).rulings as unknown as (Ruling & Pick<RulingView, 'fronting'>)[];
  const slips = async (): Promise<string[]> =>
    [
      ...new Set((await driver.ledger()).served!.servers.flatMap((server) => server.differs.map((set) => `${set.owner} ${set.type}: ${set.slip ?? ''}`))),
    ].sort();

  it('are told as fronted too early where the plan has them as they are stored', async () => {
    await driver.until(
      'the zone is read back',
      asked(async () => {
        const { served } = await driver.ledger();
        const isFronted = ({ owner }: { owner: string }): boolean => owner === ZONE || owner === `www.${ZONE}`;
        return served !== null && served.servers.every((server) => server.problem === null && server.differs.every(isFronted));
      }),
    );
    const told = await slips();
    expect(told.length).toBeGreaterThan(0);
    expect(told.find((slip) => slip.startsWith(`${ZONE} A:`))).toContain('switch that off for this name');
  });

  it('are as planned once the plan has them fronted, whichever of its addresses the host answers with', async () => {
    for (const owner of [ZONE, `www.${ZONE}`]) await driver.act('/fronting', { owner, state: 'on' });
    expect(
      (await rulings())
        .filter((row) => row.fronting === 'on')
        .map((row) => `${row.owner} ${row.type}`)
        .sort(),
    ).toEqual([`${ZONE} A`, `${ZONE} AAAA`, `www.${ZONE} CNAME`]);
    await driver.done('served');
    expect(await slips()).toEqual([]);
    await driver.act('/undo');
    await driver.until(
      'www is not as planned again',
      asked(async () => (await slips()).some((slip) => slip.startsWith(`www.${ZONE}`))),
    );
    await driver.act('/redo');
    await driver.done('served');
  });

  it('cannot be fronted where nothing leads anywhere, nor at a host that fronts none', async () => {
    await expect(driver.act('/fronting', { owner: `_dmarc.${ZONE}`, state: 'on' })).rejects.toMatchObject({ status: 409 });
    await driver.act('/hosts', { newDnsHost: await driver.hostId('Quillmere'), newWebHost: await driver.hostId('Thornwick') });
    await expect(driver.act('/fronting', { owner: ZONE, state: 'on' })).rejects.toThrow(/is not fronted at Quillmere/);
    expect((await rulings()).every((row) => row.fronting === null)).toBe(true);
    expect((await driver.move()).legs[0]!.steps.map((step) => step.title)).toContain('Take the zone out of Brackenfold DNS');
  });
});
