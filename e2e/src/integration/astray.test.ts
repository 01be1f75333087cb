import { Ruling, legSheet } from '@wanderon/core';
import { Driver, asked } from '../support/drive';
import { World, openWorld } from '../support/world';

const ZONE = 'seed-library.example.';

/** Rows that somebody says are typed, and that stand on another domain, or in a panel to which nothing is delegated. */
describe('a row that is typed in the wrong place', () => {
  let world: World;
  beforeAll(async () => {
    world = await openWorld({ rate: 60 });
  });
  afterAll(() => world.close());

  async function panel(host: string, path: string, fields: Record<string, string>): Promise<void> {
    const answer = await fetch(`${world.lab.address}/panel/${host}/${path}`, { method: 'POST', body: new URLSearchParams(fields) });
    expect([host, path, answer.ok]).toEqual([host, path, true]);
  }

  it('is found there, and asked about; what is not typed at all is not looked for', async () => {
    const other = await Driver.begin(world.api, 'regatta-club.example');
    const driver = await Driver.begin(world.api, 'seed-library.example');
    await driver.done('survey');
    await other.done('survey');
    await driver.act('/hosts', { newDnsHost: await driver.hostId('Driftwood'), newWebHost: await driver.hostId('Thornwick') });
    await driver.way('push', 'leave');
    for (const zone of [ZONE, 'regatta-club.example.']) await panel('driftwood', 'domain', { name: zone });
    await panel('millrace', 'domain', { name: ZONE });
    const rulings = (await driver.ledger()).rulings as unknown as Ruling[];
    const entry = world.lab.scenario().hosts.find((host) => host.id === 'driftwood')!.entry!;
    const rows = legSheet({ kind: 'delegation', isBack: false, rulings, served: null }, ZONE, { entry });
    const row = (name: string, type: string): (typeof rows)[number] => rows.find((one) => one.entry!.name === name && one.entry!.type === type)!;
    const tick = (one: (typeof rows)[number]): Promise<unknown> => driver.act('/typed', { row: one.id, typed: true });
    const [www, mail] = [row('www', 'CNAME'), row('mail', 'A')];
    const fields = ({ entry: typed }: (typeof rows)[number]): Record<string, string> => ({
      name: typed!.name,
      type: typed!.type,
      value: typed!.value,
      ttl: typed!.ttl ?? '',
    });
    await panel('driftwood', 'add', { zone: 'regatta-club.example.', ...fields(www) });
    await panel('millrace', 'add', { zone: ZONE, ...fields(mail), ttl: '900' });
    const slips = async (): Promise<Map<string, string | null>> =>
      new Map((await driver.ledger()).served?.servers.flatMap((server) => server.differs.map((set) => [`${set.owner} ${set.type}`, set.slip])));
    await driver.until(
      'it is read back',
      asked(async () => (await slips()).has(`www.${ZONE} CNAME`)),
    );
    expect((await slips()).get(`www.${ZONE} CNAME`)).toBe('It is not there: not typed, not saved, or saved under another name.');
    await tick(www);
    await tick(mail);
    await driver.until(
      'they are found',
      asked(async () => [...(await slips()).values()].filter((slip) => /another domain|wrong panel/.test(slip ?? '')).length === 2),
    );
    const found = await slips();
    expect([found.get(`www.${ZONE} CNAME`), found.get(`mail.${ZONE} A`), found.get(`autoconfig.${ZONE} CNAME`)]).toEqual([
      'It is not there, and the same stands at www.regatta-club.example: was it saved on another domain?',
      'It is not there, and stands at Millrace DNS, to which nothing is delegated: was it typed in the wrong panel?',
      'It is not there: not typed, not saved, or saved under another name.',
    ]);
  });
});
