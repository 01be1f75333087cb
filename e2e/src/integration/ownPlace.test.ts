import { ChildProcess, spawn, spawnSync } from 'node:child_process';
import { copyFileSync, existsSync, mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Api, ApiError, until } from '../../../command/src/api';
import { freePort } from '../../../command/src/postgres';
import { Chromium, press, words } from '../support/browser';
import { ROOT } from '../../../command/src/processes';

const PASSWORD = 'a heron on the mudflat';
const HOST = {
  ...{ name: 'Bittern DNS', role: 'dns', nameservers: ['ns1.bittern.example.'], addresses: [], aliasTarget: null, requires: [] },
  ...{ updateAddress: null, note: '' },
};
const MAIN = join(ROOT, 'command/dist/main.js');

interface Installation {
  readonly data: string;
  readonly env: NodeJS.ProcessEnv;
  readonly said: string[];
  child?: ChildProcess;
}

/** An installation as somebody makes it who sets no variable; the folder and the port alone are the test's own. */
describe('a start with nothing set', () => {
  const folder = mkdtempSync(join(tmpdir(), 'wanderon-own-'));
  const all: Installation[] = [];
  const installation = async (name: string): Promise<Installation> => {
    const data = join(folder, name);
    const made = { data, said: [], env: { PATH: process.env['PATH'], HOME: folder, WANDERON_DATA: data, WANDERON_PORT: String(await freePort()) } };
    all.push(made);
    return made;
  };
  const address = ({ env }: Installation): string => `http://127.0.0.1:${env['WANDERON_PORT']}`;
  const start = async (one: Installation): Promise<void> => {
    one.said.length = 0;
    const child = spawn(process.execPath, [MAIN, 'start'], { env: one.env, stdio: ['ignore', 'pipe', 'pipe'] });
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (data: Buffer) => void one.said.push(data.toString()));
    one.child = child;
    await until('it listens', () => Promise.resolve(one.said.join('').includes('listening ') || undefined));
  };
  const stop = async ({ child }: Installation): Promise<void> => {
    if (!child || child.exitCode !== null) return;
    const ended = new Promise<void>((resolve) => child.once('exit', () => resolve()));
    child.kill('SIGTERM');
    await ended;
  };
  const run = ({ env }: Installation, ...args: string[]): { status: number | null; stdout: string; stderr: string } =>
    spawnSync(process.execPath, [MAIN, ...args], { env, encoding: 'utf8' });
  const beside = async ({ env }: Installation, ...args: string[]): Promise<{ status: number | null; stdout: string; stderr: string }> => {
    const child = spawn(process.execPath, [MAIN, ...args], { env, stdio: ['ignore', 'pipe', 'pipe'] });
    const said = { stdout: '', stderr: '' };
    child.stdout.on('data', (data: Buffer) => void (said.stdout += data.toString()));
    child.stderr.on('data', (data: Buffer) => void (said.stderr += data.toString()));
    const status = await new Promise<number | null>((resolve) => child.once('close', resolve));
    return { status, ...said };
  };
  const begin = (one: Installation, secret: string, more: object = {}): Promise<unknown> =>
    new Api(address(one)).call('POST', '/api/begin', { secret, login: 'marsh', name: 'Marsh Warden', password: PASSWORD, ...more });
  const refusal = async (asked: Promise<unknown>): Promise<number | undefined> => {
    try {
      await asked;
      return undefined;
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      return error.status;
    }
  };
  const chromium = new Chromium();
  beforeAll(async () => {
    await chromium.open();
  });
  afterAll(async () => {
    await chromium.close();
    for (const one of all) await stop(one);
    rmSync(folder, { recursive: true, force: true });
  });

  it('shows one page to whoever opens its link, and the Desk behind it', async () => {
    const one = await installation('page');
    await start(one);
    const page = await chromium.page();
    await page.goto(/http:\S+\/begin\/\S+/.exec(one.said.join(''))![0]);
    await words(page, 'Nobody has an account here yet.');
    await page.locator('input[autocomplete=name]').fill('Marsh Warden');
    await page.locator('input[autocomplete=username]').fill('marsh');
    await page.locator('input[type=password]').fill('password2026');
    await press(page, 'Make my account');
    await words(page, /one of the commonest passwords/);
    await page.locator('input[type=password]').fill(PASSWORD);
    await press(page, 'Make my account');
    await words(page, 'Marsh Warden');
    expect(new URL(page.url()).pathname).toBe('/');
    // The link is spent: the page says so, and leads on.
    await page.goto(/http:\S+\/begin\/\S+/.exec(one.said.join(''))![0]);
    await page.locator('input[autocomplete=name]').fill('Reed');
    await page.locator('input[autocomplete=username]').fill('reed');
    await page.locator('input[type=password]').fill(PASSWORD);
    await press(page, 'Make my account');
    await words(page, 'Somebody has an account already.');
    await page.locator('a[href="/"]').click();
    await words(page, 'Marsh Warden');
    expect(chromium.complaints).toEqual([]);
    await stop(one);
  });

  it('has a database and a key of its own; whoever has its link makes the first account, and is kept over starts, a backup and another machine', async () => {
    const first = await installation('first');
    await start(first);
    const link = /\/begin\/([\w-]+)/.exec(first.said.join(''))![1]!;
    expect(statSync(join(first.data, 'secret.key')).mode & 0o077).toBe(0);
    expect(first.said.join('')).not.toContain(readFileSync(join(first.data, 'secret.key'), 'utf8'));

    // Nobody without the link, nobody twice, and no weak password.
    expect(await refusal(begin(first, `${link}x`))).toBe(403);
    expect(await refusal(begin(first, link, { password: 'password2026' }))).toBe(400);
    const at = await Promise.all(['marsh', 'reed', 'heron'].map((login) => refusal(begin(first, link, { login }))));
    expect([...at].sort()).toEqual([409, 409, undefined]);
    const login = ['marsh', 'reed', 'heron'][at.indexOf(undefined)]!;
    expect(await refusal(begin(first, link, { login: 'other' }))).toBe(409);
    const api = await new Api(address(first)).signIn(login, PASSWORD);
    const key = { name: 'bittern.key.', algorithm: 'hmac-sha256', secret: Buffer.alloc(32, 7).toString('base64') };
    const { id } = await api.call<{ id: string }>('POST', '/api/hosts', { ...HOST, key });

    // Another start with the same folder would take its database away.
    const second = run(first, 'start');
    expect([second.status, second.stderr]).toEqual([1, expect.stringContaining('runs already')]);

    // Six people go on working while it is kept.
    const file = join(folder, 'kept.backup');
    const people = Array.from({ length: 6 }, (): string[] => []);
    let over = false;
    const working = people.map(async (made, who) => {
      while (!over) made.push((await api.call<{ id: string }>('POST', '/api/hosts', { ...HOST, name: `Host ${who}-${made.length}` })).id);
    });
    await until('everybody has begun', () => Promise.resolve(people.every((made) => made.length > 2) || undefined));
    const before = people.flat();
    const kept = await beside(first, 'backup', file);
    over = true;
    await Promise.all(working);
    expect(people.flat().length).toBeGreaterThan(before.length);
    expect([kept.status, kept.stdout]).toEqual([0, expect.stringMatching(/open only with the key [0-9a-f]{8} \(.*secret\.key\)/)]);
    expect(run(first, 'backup', file)).toMatchObject({ status: 1, stderr: expect.stringContaining('is there already') as string });
    expect(run(first, 'restore', file)).toMatchObject({ status: 1, stderr: expect.stringContaining('Stop it first') as string });
    expect(run(first, 'trail', 'check').status).toBe(0);
    await stop(first);
    expect(run(first, 'restore', file)).toMatchObject({ status: 1, stderr: expect.stringContaining('something in this database') as string });

    // No link any more once somebody has an account.
    await start(first);
    expect(first.said.join('')).not.toContain('/begin/');
    await new Api(address(first)).signIn(login, PASSWORD);
    await stop(first);

    const elsewhere = await installation('elsewhere');
    expect(run(elsewhere, 'restore', join(folder, 'nothing')).status).toBe(1);
    const brought = run(elsewhere, 'restore', file);
    expect([brought.status, brought.stdout]).toEqual([0, expect.stringContaining('put the key of the old installation')]);
    // The file names the key that it opens with, and whoever restores it is told.
    const named = /with the key ([0-9a-f]{8})/.exec(kept.stdout)![1]!;
    expect([kept.stdout, brought.stdout]).toEqual([
      expect.stringContaining('which it names'),
      expect.stringContaining(`Secrets in it open with the key ${named}.`),
    ]);
    // Another key would be made in its place otherwise, and nothing could be opened.
    expect(run(elsewhere, 'start')).toMatchObject({ status: 1, stderr: expect.stringContaining('its key is missing') as string });
    expect(existsSync(join(elsewhere.data, 'secret.key'))).toBe(false);
    copyFileSync(join(first.data, 'secret.key'), join(elsewhere.data, 'secret.key'));
    await start(elsewhere);
    expect(elsewhere.said.join('')).not.toContain('/begin/');
    const there = await new Api(address(elsewhere)).signIn(login, PASSWORD);
    const { hosts } = await there.call<{ hosts: { id: string }[] }>('GET', '/api/hosts');
    expect(hosts.find((host) => host.id === id)).toMatchObject({ name: 'Bittern DNS', nameservers: ['ns1.bittern.example.'] });
    // All of one moment: what was there before it began, and of each person's later work nothing without what came before it.
    const carried = new Set(hosts.map((host) => host.id));
    expect(before.filter((one) => !carried.has(one))).toEqual([]);
    for (const made of people) expect(made.findLastIndex((one) => carried.has(one)) + 1).toBe(made.filter((one) => carried.has(one)).length);
    for (const one of people.flatMap((made) => made.filter((each) => carried.has(each)).slice(-2)))
      expect((await there.call<{ history: unknown[] }>('GET', `/api/hosts/${one}`)).history).toHaveLength(1);
    expect(run(elsewhere, 'trail', 'check').status).toBe(0);
  });
});
