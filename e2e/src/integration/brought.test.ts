import { spawnSync } from 'node:child_process';
import { copyFileSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import knex from 'knex';
import { Lab } from '@wanderon/lab';
import { MoveSummary } from '@wanderon/contract';
import { Api } from '../../../command/src/api';
import { Driver } from '../support/drive';
import { ServerUnderTest } from '../support/world';

const CORPUS = join(__dirname, '../../corpus/before-engine');

/** A database of before the engine, in the middle of three moves: it is brought over, and they go on. */
describe('a database of before', () => {
  const folder = mkdtempSync(join(tmpdir(), 'wanderon-brought-'));
  const applied: string[] = [];
  let lab: Lab;
  let server: ServerUnderTest;
  let api: Api;
  let moves: MoveSummary[];

  beforeAll(async () => {
    copyFileSync(join(CORPUS, 'lab.json'), join(folder, 'lab.json'));
    lab = await Lab.open({
      stateFile: join(folder, 'lab.json'),
      rate: 1,
      watcher: { applied: (host, _message, changed) => void (changed && applied.push(host)) },
    });
    server = await new ServerUnderTest({ WANDERON_LAB: lab.address, WANDERON_SECRET_KEY: readFileSync(join(CORPUS, 'secret.key'), 'utf8').trim() }).open(
      (database) => {
        const done = spawnSync('psql', [database, '-q', '-f', '-'], { input: gunzipSync(readFileSync(join(CORPUS, 'database.sql.gz'))), encoding: 'utf8' });
        if (done.status !== 0) throw new Error(done.stderr);
      },
    );
    api = await server.signIn();
    moves = (await api.call<{ moves: MoveSummary[] }>('GET', '/api/moves')).moves;
  });
  afterAll(async () => {
    await server?.close();
    lab?.close();
    rmSync(folder, { recursive: true, force: true });
  });

  const driver = (start: string): Driver => new Driver(api, moves.find((move) => move.domain.startsWith(start))!.id);
  const states = async (start: string): Promise<Record<string, string>> =>
    Object.fromEntries((await driver(start).move()).legs[0]!.steps.map((step) => [step.id, step.state]));

  it('has every move where it was', async () => {
    expect(moves).toHaveLength(6);
    expect(await states('xn--crmerie')).toMatchObject({ survey: 'done', push: 'done', lower: 'done', switch: 'done', turn: 'done', close: 'waiting' });
    // The engine looks from the start on: it may have seen the lowering everywhere already.
    const lowered: unknown = expect.stringMatching(/^(doing|done)$/);
    expect(await states('gull-radio')).toMatchObject({ push: 'done', lower: 'done', lowered, switch: 'waiting' });
    expect(await states('canoe-yard')).toMatchObject({ choose: 'done', push: 'ready', lower: 'ready' });
    expect(await states('allotment')).toMatchObject({ survey: 'done', choose: 'ready' });
    expect((await driver('canoe-yard').ledger()).rulings.length).toBeGreaterThan(10);
  });

  it('keeps what was said and who said it', async () => {
    const { events } = await driver('xn--crmerie').call<{ events: { kind: string; who: string | null }[] }>(
      'GET',
      `/api/moves/${driver('xn--crmerie').id}/events`,
    );
    expect(events.find((event) => event.kind === 'submitted')!.who).toBe('Technician');
    expect((await driver('gull-radio').move()).legs[0]).toMatchObject({ approved: true, pushed: true, lowerTo: 300 });
  });

  it('goes on with each of them, and sends nothing twice', async () => {
    lab.clock.setRate(600);
    const draining = driver('xn--crmerie');
    const opening = driver('gull-radio');
    await opening.done('lowered');
    expect(applied).toEqual([]);
    lab.clock.setRate(3600);
    await Promise.all([
      draining.done('raise'),
      opening.until('its gate opens', (move) => move.legs[0]!.gate.lines.filter((line) => !line.holds && !line.waivable).length === 0),
    ]);
    expect(applied).toEqual(['quillmere']);
    await draining.act('/close');
    lab.clock.setRate(60);
    lab.addDomain('quillmere', 'canoe-yard.example.');
    await driver('canoe-yard').act('/push');
    await driver('canoe-yard').done('served');
  });

  it('has tasks that spoke of redirects marked as such, at a host and where a leg keeps what it was planned with', async () => {
    await server.kill();
    const database = knex({ client: 'pg', connection: server.database });
    const task = (title: string, note: string): object => ({ id: title, title, by: 'us', when: 'before', waits: false, note });
    const tasks = [task('Publish', ''), task('Spellings', 'A Redirect from each'), task('Forward the old names', '')];
    const marks = { Publish: false, Spellings: true, 'Forward the old names': true };
    try {
      await database('knex_migrations').where({ name: '026_redirect_tasks' }).delete();
      await database('hosts')
        .where({ role: 'web' })
        .update({ tasks: JSON.stringify(tasks) });
      await database('legs').update({ web: JSON.stringify({ name: 'As it was', nameservers: [], addresses: [], requires: [], tasks }) });
      await server.start();
      const marked = (all: readonly { title: string; redirects: boolean }[]): object => Object.fromEntries(all.map((one) => [one.title, one.redirects]));
      const { hosts } = await (await server.signIn()).call<{ hosts: { role: string; tasks: { title: string; redirects: boolean }[] }[] }>('GET', '/api/hosts');
      const web = hosts.filter((host) => host.role === 'web');
      expect(web.length).toBeGreaterThan(0);
      for (const host of web) expect(marked(host.tasks)).toEqual(marks);
      for (const host of hosts.filter((one) => one.role !== 'web')) expect(host.tasks).toEqual([]);
      for (const { web: kept } of await database<{ web: { name: string; tasks: never[] } }>('legs').select('web'))
        expect([kept.name, marked(kept.tasks)]).toEqual(['As it was', marks]);
    } finally {
      await database.destroy();
    }
  });
});
