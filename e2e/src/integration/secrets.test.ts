import { randomBytes } from 'node:crypto';
import { Host } from '@wanderon/contract';
import knex from 'knex';
import { Api } from '../../../command/src/api';
import { DEMO_PASSWORD, FIRST_PASSWORD } from '../../../command/src/demoData';
import { Driver } from '../support/drive';
import { codeAt } from '../support/totp';
import { SECRET_KEY, World, openWorld } from '../support/world';

/** Forms in which a secret may stand somewhere. */
function formsOf(secret: string): string[] {
  const octets = Buffer.from(secret, 'utf8');
  const inside = /^[A-Za-z0-9+/]{20,}={0,2}$/.test(secret) ? [Buffer.from(secret, 'base64')] : [];
  const coded = [octets, ...inside].flatMap((one) => [one.toString('base64'), one.toString('base64url'), one.toString('hex')]);
  return [...new Set([secret, encodeURIComponent(secret), ...coded])];
}

const key = (): string => randomBytes(32).toString('base64');
/** Words that no dictionary has beside each other. */
const phrase = (): string => `planted ${randomBytes(12).toString('hex')} phrase`;

describe('secrets', () => {
  let world: World;
  /** What was answered, whatever was told once and to nobody else aside. */
  const answers: string[] = [];
  const planted = new Map<string, string>();
  const plant = (what: string, secret: string): string => {
    planted.set(what, secret);
    return secret;
  };

  beforeAll(async () => {
    world = await openWorld({}, { WANDERON_LOG: 'debug' });
  });
  afterAll(() => world.close());

  async function ask<T = unknown>(headers: Readonly<Record<string, string>>, method: string, path: string, body?: unknown, once = false): Promise<T> {
    const response = await fetch(`${world.server.address}${path}`, {
      method,
      headers: { ...headers, 'content-type': 'application/json' },
      ...(body === undefined ? {} : { body: typeof body === 'string' ? body : JSON.stringify(body) }),
    });
    const text = await response.text();
    if (!once) answers.push(`${method} ${path} ${response.status} ${text}`);
    return (text.startsWith('{') || text.startsWith('[') ? JSON.parse(text) : null) as T;
  }

  it('stand in nothing that a whole run leaves: no log, event, answer, table or error', async () => {
    const { server, lab } = world;
    const admin = await server.signIn('admin');
    const { headers } = admin;
    plant('the key of the environment', SECRET_KEY);
    plant('the password of the database', new URL(server.runner).password);
    plant('the first password', FIRST_PASSWORD);
    plant('a session', admin.headers['cookie']!.split('=')[1]!);
    for (const host of lab.hosts) if (host.key) plant(`the key of ${host.name}`, host.key.secret);

    // People: passwords given, changed, mistyped, refused; a second factor.
    const person = { login: 'planted-person', name: 'Planted', role: 'technician', mustChange: false };
    const given = plant('a given password', phrase());
    const { id } = await ask<{ id: string }>(headers, 'POST', '/api/people', { ...person, password: given });
    await ask(headers, 'POST', '/api/people', { ...person, login: 'x y', password: plant('a password beside a wrong login', phrase()) });
    await ask(headers, 'PUT', `/api/people/${id}/password`, { password: plant('a refused password', 'aaaaaaaaaaaaaaaaaaaaaa') });
    await ask({}, 'POST', '/api/sign-in', { login: person.login, password: plant('a mistyped password', phrase()) });
    await ask({}, 'POST', '/api/sign-in', `{"login":"planted-person","password":"${plant('a password in what is no JSON', phrase())}`);
    await ask({}, 'POST', '/api/sign-in', { login: [person.login], password: { x: plant('a password of another shape', phrase()) } });
    const own = await new Api(server.address).signIn(person.login, given);
    plant('a session of somebody', own.headers['cookie']!.split('=')[1]!);
    const { secret } = await ask<{ secret: string }>(own.headers, 'POST', '/api/me/second-factor', { password: given }, true);
    plant('the secret of a second factor', secret);
    await ask(own.headers, 'PUT', '/api/me/second-factor', { code: '000000' });
    const { codes } = await ask<{ codes: string[] }>(own.headers, 'PUT', '/api/me/second-factor', { code: codeAt(secret, Date.now() / 1000) }, true);
    codes.forEach((code, index) => plant(`recovery code ${index + 1}`, code));
    await ask({}, 'POST', '/api/sign-in', { login: person.login, password: given, code: codes[0] });
    const changed = plant('a changed password', phrase());
    await ask(own.headers, 'PUT', '/api/me/password', { current: given, password: changed });

    // Hosts: a key that is replaced, one that cannot be read, one that the server does not know.
    const { hosts } = await admin.call<{ hosts: Host[] }>('GET', '/api/hosts');
    const quillmere = hosts.find((host) => host.name.startsWith('Quillmere'))!;
    const right = lab.hosts.find((host) => host.key && quillmere.name.startsWith(host.name))!.key!;
    const { id: hostId, ...input } = quillmere;
    const put = (secretText: string): Promise<unknown> =>
      ask(headers, 'PUT', `/api/hosts/${hostId}`, { ...input, key: { name: right.name, algorithm: right.algorithm, secret: secretText } });
    await put(plant('a key that is no base64', `!${key()}`));
    await put(plant('a key that nobody knows', key()));

    // A move from its survey to its end: the push is refused with the wrong key, and made with the right one.
    lab.addDomain('quillmere', 'canoe-yard.example.');
    const driver = await Driver.begin(world.api, 'canoe-yard.example');
    await driver.done('survey');
    await driver.act('/hosts', { newDnsHost: hostId, newWebHost: null });
    await driver.act('/push');
    await driver.until('the push is refused', (move) => move.legs[0]!.steps.some((step) => step.id === 'push' && step.state === 'stopped'));
    await put(right.secret);
    await driver.way('push', 'retry');
    await driver.until('the push is made', (move) => move.legs[0]!.steps.some((step) => step.id === 'push' && step.state === 'done'));
    await driver.act('/approve', { lowerAt: null, plannedSwitch: null, lowerTo: 300 });
    const leg = await driver.leg();
    const link = await ask<{ path: string }>(headers, 'POST', `${leg}/sheet-links`, { days: 1 }, true);
    plant('the secret of a sheet', link.path.split('/').at(-1)!);
    lab.clock.setRate(60);
    for (const step of ['lower', 'lowered']) await driver.done(step);
    lab.clock.setRate(3600);
    await driver.until('the gate opens', (move) => move.legs[0]!.gate.open);
    lab.clock.setRate(60);
    await driver.act('/submitted');
    lab.changeNameservers('canoe-yard.example.', (await driver.move()).legs[0]!.newNameservers);
    for (const step of ['switch', 'turn']) await driver.done(step);
    lab.clock.setRate(3600);
    await driver.done('settle');
    lab.clock.setRate(60);
    await driver.done('raise');
    expect((await driver.act('/close')).state).toBe('closed');

    // Everything that can be read.
    const document = await ask<{ paths: Record<string, Record<string, unknown>> }>(headers, 'GET', '/api/openapi.json');
    for (const path of Object.keys(document.paths).filter((one) => 'get' in document.paths[one]! && one !== '/api/live'))
      await ask(headers, 'GET', path.replace('{leg}', leg.split('/').at(-1)!).replace('{id}', path.includes('/hosts/') ? hostId : driver.id));
    const trail = await ask<{ entries: unknown[] }>(headers, 'GET', '/api/trail');
    expect(trail.entries.length).toBeGreaterThan(10);

    const database = knex({ client: 'pg', connection: server.database });
    const tables: { schema: string; name: string }[] = await database('information_schema.tables')
      .whereNotIn('table_schema', ['pg_catalog', 'information_schema'])
      .where('table_type', 'BASE TABLE')
      .select({ schema: 'table_schema', name: 'table_name' });
    const dump: string[] = [];
    for (const { schema, name } of tables) {
      const { rows } = await database.raw<{ rows: { row: string }[] }>('select t::text as row from ??.?? t', [schema, name]);
      dump.push(...rows.map(({ row }) => `${schema}.${name} ${row}`));
    }
    await database.destroy();

    const places: readonly [string, readonly string[]][] = [
      ['an answer', answers],
      ['the database', dump],
      ['the log', server.said],
    ];
    // What is looked for is found where it may stand.
    for (const [place, texts] of places) expect([place, texts.some((text) => text.includes('canoe-yard.example'))]).toEqual([place, true]);
    expect(planted.size).toBeGreaterThan(20);
    const found = [...planted].flatMap(([what, secretText]) =>
      places.flatMap(([place, texts]) =>
        formsOf(secretText).flatMap((form) => texts.flatMap((text) => (text.includes(form) ? [`${what} in ${place}: ${text.slice(0, 120)}`] : []))),
      ),
    );
    expect(found).toEqual([]);
    expect([await new Api(server.address).signIn('technician', DEMO_PASSWORD)]).toHaveLength(1);
  });
});
