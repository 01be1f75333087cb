import knex, { Knex } from 'knex';
import { OpenSheetView, SheetLink } from '@wanderon/contract';
import { SheetKind } from '@wanderon/core';
import { Api } from '../../../command/src/api';
import { DEMO_PASSWORD } from '../../../command/src/demoData';
import { Driver } from '../support/drive';
import { World, openWorld } from '../support/world';

describe('a link to a handover sheet', () => {
  let world: World;
  let database: Knex;
  let driver: Driver;
  let leg: string;

  beforeAll(async () => {
    world = await openWorld();
    database = knex({ client: 'pg', connection: world.server.database });
    driver = await Driver.begin(world.api, 'tidewater-choir.example');
    await driver.done('survey');
    await driver.act('/hosts', { newDnsHost: await driver.hostId('Heronsgate'), newWebHost: await driver.hostId('Thornwick') });
    leg = await driver.leg();
  });
  afterAll(async () => {
    await database.destroy();
    await world.close();
  });

  const make = (days = 3, sheet: SheetKind = 'records'): Promise<SheetLink & { path: string }> => world.api.call('POST', `${leg}/sheet-links`, { days, sheet });
  const rowsIn = ({ content }: OpenSheetView) => (content.sheet === 'registrar' ? [] : content.rows);
  /** As a browser without any session asks. */
  const open = async (path: string): Promise<{ status: number; body: OpenSheetView; cache: string | null }> => {
    const answer = await fetch(`${world.server.address}/api/sheets/${path.replace('/sheet/', '')}`);
    return { status: answer.status, body: (await answer.json()) as OpenSheetView, cache: answer.headers.get('cache-control') };
  };

  it('shows that sheet as its panel wants it, to somebody without an account, and nothing else of the move', async () => {
    const { path } = await make();
    const { status, body, cache } = await open(path);
    expect([status, cache]).toEqual([200, 'no-store']);
    expect(Object.keys(body).sort()).toEqual(['content', 'domain', 'endsAt', 'host', 'typed', 'warnings', 'where']);
    expect(body).toMatchObject({ domain: 'tidewater-choir.example', host: 'Heronsgate DNS', where: null, content: { sheet: 'records', inPlace: false } });
    // That panel wants the priority before the value, and an empty field for the domain itself.
    expect(rowsIn(body).find((row) => row.entry?.type === 'MX')!.entry).toEqual({ name: '', type: 'MX', value: '10 mx1.brinepost.example' });
    const secret = path.replace('/sheet/', '');
    for (const [method, to] of [
      ['GET', `/api/moves/${driver.id}`],
      ['GET', `${leg}/ledger`],
      ['GET', `${leg}/sheet-links`],
      ['POST', `${leg}/typed`],
    ] as const) {
      const answer = await fetch(`${world.server.address}${to}`, { method, headers: { authorization: `Bearer ${secret}`, cookie: `wanderon=${secret}` } });
      expect([to, answer.status]).toEqual([to, 401]);
    }
  });

  it('ticks rows for everybody, on record as the link’s, and nothing that is not in the sheet', async () => {
    const { path } = await make();
    const at = `${world.server.address}/api/sheets/${path.replace('/sheet/', '')}/typed`;
    const tick = async (row: string, typed: boolean): Promise<{ status: number; typed: readonly string[] | undefined }> => {
      const answer = await fetch(at, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ row, typed }) });
      return { status: answer.status, typed: ((await answer.json()) as Partial<OpenSheetView>).typed };
    };
    const [one, two] = rowsIn((await open(path)).body).map((row) => row.id) as [string, string];
    expect([await tick(one, true), await tick(two, true), await tick(two, true), await tick(two, false)]).toEqual([
      { status: 200, typed: [one] },
      { status: 200, typed: [one, two] },
      { status: 200, typed: [one, two] },
      { status: 200, typed: [one] },
    ]);
    expect((await driver.move()).legs.at(-1)!.ticks).toEqual([one]);
    expect((await tick('zone.example./A/192.0.2.1', true)).status).toBe(409);
    expect((await tick('', true)).status).toBe(400);
    const events = await database('events').where({ kind: 'typed', person_id: null }).orderBy('id').select<{ text: string }[]>('text');
    expect(events.map((event) => event.text.split(' ')[0])).toEqual(['Typed,', 'Typed,', 'Not']);
    expect(events[0]!.text).toContain('by a link that');
    await database('sheet_links').update({ ticks: 2000 });
    expect(await tick(two, true)).toEqual({ status: 409, typed: undefined });
    expect((await driver.move()).legs.at(-1)!.ticks).toEqual([one]);
  });

  it('goes from what the panel shows, once somebody pasted that', async () => {
    const { path } = await make();
    const before = rowsIn((await open(path)).body);
    const { rulings } = await driver.ledger();
    const there = rulings.filter((row) => row.planned && row.type !== 'TXT').map((row) => row.planned!);
    await driver.act('/panel', { sets: [...there, { owner: 'parked.tidewater-choir.example.', type: 'A', ttl: 300, data: ['192.0.2.7'] }] });
    const after = rowsIn((await open(path)).body);
    expect(after.filter((row) => row.act === 'delete').map((row) => row.before!.name)).toEqual(['parked']);
    expect(after.filter((row) => row.act !== 'delete').every((row) => row.entry!.type === 'TXT')).toBe(true);
    await expect(driver.act('/panel', { sets: [{ owner: 'www.elsewhere.example.', type: 'A', ttl: 300, data: ['192.0.2.7'] }] })).rejects.toMatchObject({
      status: 400,
    });
    await driver.act('/panel', { sets: null });
    expect(rowsIn((await open(path)).body)).toEqual(before);
  });

  it('shows the other sheets of the leg as well, each with ticks of its own and with where to click', async () => {
    const registrar = await world.api.call<{ id: string }>('POST', '/api/hosts', {
      ...{ name: 'Harbour Names', role: 'registrar', note: '', nameservers: [], addresses: [], requires: [], aliasTarget: null, updateAddress: null },
      where: [{ act: 'nameservers', link: 'https://names.example/{zone}', path: 'Domains › {zone} › Name servers', first: '' }],
    });
    await driver.call('PUT', `${leg}/registrar`, { host: registrar.id });
    const { path, id } = await make(3, 'registrar');
    const { body } = await open(path);
    expect(body).toMatchObject({
      host: 'Harbour Names',
      where: { link: 'https://names.example/tidewater-choir.example', clicks: ['Domains', 'tidewater-choir.example', 'Name servers'] },
      typed: [],
      content: { sheet: 'registrar', names: 2 },
    });
    const steps = body.content.sheet === 'registrar' ? body.content.steps : [];
    const at = `${world.server.address}/api/sheets/${path.replace('/sheet/', '')}/typed`;
    const tick = (row: string): Promise<Response> =>
      fetch(at, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ row, typed: true }) });
    expect((await tick(steps[0]!.id)).status).toBe(200);
    const lower = (await open((await make(3, 'lower')).path)).body;
    // A link shows and ticks its own sheet, whatever it is sent.
    expect((await tick(rowsIn(lower)[0]!.id)).status).toBe(409);
    expect((await open(path)).body.typed).toEqual([steps[0]!.id]);
    expect((await driver.move()).legs.at(-1)!.ticks).toContain(`registrar ${steps[0]!.id}`);
    expect((await world.api.call<{ links: SheetLink[] }>('GET', `${leg}/sheet-links?sheet=registrar`)).links.map((link) => link.id)).toEqual([id]);
    expect(rowsIn(lower).map(({ act }) => act)).toEqual(rowsIn(lower).map(() => 'edit'));
    expect(rowsIn(lower).some(({ before, entry }) => before!.ttl === '3600' && entry!.ttl === '300')).toBe(true);
  });

  it('is kept as a digest only, and told once', async () => {
    const { path, id } = await make();
    const secret = path.replace('/sheet/', '');
    const { links } = await world.api.call<{ links: object[] }>('GET', `${leg}/sheet-links`);
    const kept = JSON.stringify([links, await database('sheet_links').select('*'), await database('events').select('*')]);
    expect(kept).toContain(id);
    expect(kept).not.toContain(secret);
  });

  it('ends by somebody’s word, by date, and with the move; whatever is wrong, the answer is the same', async () => {
    const [withdrawn, late, ended] = [await make(), await make(1), await make(30)];
    await world.api.call('POST', `${leg}/sheet-links/${withdrawn.id}/withdraw`);
    await world.api.call('POST', `${leg}/sheet-links/${withdrawn.id}/withdraw`);
    await database('sheet_links')
      .where({ id: late.id })
      .update({ ends_at: (await world.api.call<{ at: number }>('GET', '/api/clock')).at });
    expect((await open(ended.path)).status).toBe(200);
    const refused = [
      await open(withdrawn.path),
      await open(late.path),
      await open(`/sheet/${'A'.repeat(43)}`),
      await open('/sheet/x'),
      await open(`/sheet/${'%27'.repeat(30)}`),
    ];
    await driver.call('DELETE', `/api/moves/${driver.id}`);
    refused.push(await open(ended.path));
    expect(refused.map((one) => one.status)).toEqual(refused.map(() => 404));
    expect(new Set(refused.map((one) => JSON.stringify(one.body))).size).toBe(1);
    await expect(make()).rejects.toThrow(/This stage is over/);
    const events = await database('events')
      .where({ kind: 'sheet link' })
      .andWhereLike('text', '%handover sheet%')
      .orderBy('id')
      .select<{ text: string }[]>('text');
    expect(events.map((event) => event.text)).toEqual([
      ...['3 days', '3 days', '3 days', '3 days', '3 days', '1 day', '30 days'].map((days) => `A link to the handover sheet was made, good for ${days}.`),
      'A link to the handover sheet was withdrawn.',
    ]);
  });

  it('is made and ended by nobody who may not change a move', async () => {
    const api = await new Api(world.server.address).signIn('viewer', DEMO_PASSWORD);
    await expect(api.call('POST', `${leg}/sheet-links`, { days: 3 })).rejects.toMatchObject({ status: 403 });
    await expect(api.call('GET', `${leg}/sheet-links`)).rejects.toMatchObject({ status: 403 });
    await expect(world.api.call('POST', `${leg}/sheet-links`, { days: 365 })).rejects.toMatchObject({ status: 400 });
  });
});
