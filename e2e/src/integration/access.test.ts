import { connect } from 'node:net';
import knex, { Knex } from 'knex';
import { ApiError } from '../../../command/src/api';
import { DEMO_PASSWORD } from '../../../command/src/demoData';
import { Driver } from '../support/drive';
import { World, openWorld } from '../support/world';

interface Route {
  readonly method: string;
  readonly path: string;
}

/** What a viewer may send although it is no reading: it changes nothing of the job. */
const VIEWER_MAY = ['POST /api/sign-out', 'POST /api/domains/read', 'POST /api/legs/{leg}/front'];
/** What each person does about their own account (people.test.ts). */
const OWN = '/api/me/';

/** Of a move its version, its summary and when it is looked at again are the engine's. */
const COLUMNS: Record<string, string[]> = { moves: ['id', 'domain_id', 'scope', 'state', 'created_at', 'created_by', 'closed_at'] };

describe('who may do what', () => {
  let world: World;
  let database: Knex;
  let routes: Route[];
  let move: string;
  let leg: string;

  beforeAll(async () => {
    world = await openWorld({}, { WANDERON_TRUSTED_PROXIES: '127.0.0.0/8,::1/128' });
    database = knex({ client: 'pg', connection: world.server.database });
    const driver = await Driver.begin(world.api, 'tidewater-choir.example');
    await driver.done('survey');
    move = driver.id;
    leg = (await driver.move()).legs[0]!.id;
    expect((await fetch(`${world.server.address}/api/openapi.json`)).status).toBe(401);
    const document = (await (await fetch(`${world.server.address}/api/openapi.json`, { headers: world.api.headers })).json()) as {
      paths: Record<string, Record<string, unknown>>;
    };
    routes = Object.entries(document.paths).flatMap(([path, methods]) =>
      Object.keys(methods).map((method) => ({
        method: method.toUpperCase(),
        path: path
          .replace('{id}', move)
          .replace('{leg}', leg)
          .replace(/\{\w+\}/g, '00000000-0000-0000-0000-000000000000'),
      })),
    );
  });
  afterAll(async () => {
    await database.destroy();
    await world.close();
  });

  /** Everything that people's acts store; sessions and failed sign-ins aside, and what the engine sees and sums up meanwhile. */
  async function stored(): Promise<unknown> {
    const tables = ['clients', 'domains', 'secrets', 'hosts', 'moves', 'surveys', 'legs', 'decisions', 'proposals', 'actions'];
    return Object.fromEntries(
      await Promise.all([
        // When somebody was there is no act of theirs, and that they were refused is on record.
        ['people', await database('people').select('id', 'login', 'name', 'role', 'disabled', 'demanded', 'password_hash').orderBy('id')],
        ['events', await database('events').whereNot('kind', 'refused').orderBy('id')],
        ...tables.map(async (table) => [
          table,
          await database(table)
            .select(COLUMNS[table] ?? '*')
            .orderByRaw('1, 2'),
        ]),
      ]),
    );
  }

  const send = (route: Route, headers: Record<string, string>): Promise<Response> =>
    fetch(`${world.server.address}${route.path}`, {
      method: route.method,
      headers: { 'content-type': 'application/json', ...headers },
      ...(route.method === 'GET' ? {} : { body: '{}' }),
      signal: AbortSignal.timeout(10_000),
    });

  async function session(login: string): Promise<{ cookie: string; csrf: string }> {
    const response = await fetch(`${world.server.address}/api/sign-in`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ login, password: DEMO_PASSWORD }),
    });
    const cookie = response.headers.getSetCookie()[0]!;
    expect(cookie).toMatch(/HttpOnly/);
    expect(cookie).toMatch(/SameSite=Strict/);
    const me = (await (await fetch(`${world.server.address}/api/me`, { headers: { cookie: cookie.split(';')[0]! } })).json()) as { csrf: string };
    return { cookie: cookie.split(';')[0]!, csrf: me.csrf };
  }

  /** A link to a sheet is for people without an account (sheetLinks.test.ts). */
  const isByLink = ({ path }: Route): boolean => path.startsWith('/api/sheets/') || path === '/api/begin';

  it('knows every route', () => {
    expect(routes.length).toBeGreaterThan(20);
    expect(routes.filter((route) => route.method !== 'GET').length).toBeGreaterThan(14);
  });

  it('lets a signed-out person do and read nothing', async () => {
    const before = await stored();
    for (const route of routes.filter((one) => one.path !== '/api/sign-in' && !isByLink(one))) {
      const response = await send(route, {});
      expect([route, response.status]).toEqual([route, 401]);
      expect(response.headers.get('content-type')).toMatch(/problem\+json/);
    }
    expect(await stored()).toEqual(before);
  });

  it('lets a viewer change nothing', async () => {
    const { cookie, csrf } = await session('viewer');
    const before = await stored();
    const changing = routes.filter((one) => one.method !== 'GET' && one.path !== '/api/sign-in' && !isByLink(one));
    for (const route of changing.filter(({ method, path }) => !VIEWER_MAY.includes(`${method} ${path.replace(leg, '{leg}')}`))) {
      const response = await send(route, { cookie, 'x-csrf-token': csrf });
      expect([route, response.status]).toEqual([route, route.path.startsWith(OWN) && [400, 404].includes(response.status) ? response.status : 403]);
    }
    for (const path of ['/api/people', '/api/trail']) expect((await send({ method: 'GET', path }, { cookie })).status).toBe(403);
    const refused = await database('events').where({ kind: 'refused' }).select<{ text: string }[]>('text');
    expect(refused.map((one) => one.text)).toContain('Viewer was refused POST /api/moves: This needs the role technician; you are signed in as viewer.');
    expect(await stored()).toEqual(before);
  });

  it('refuses every change without the page’s token, and from another site', async () => {
    const { cookie, csrf } = await session('admin');
    const foreign = await session('technician');
    const before = await stored();
    for (const route of routes.filter(({ method, path }) => method !== 'GET' && path !== '/api/sign-in')) {
      // By a link nobody is anybody: what a session may do does not count there, and where it is asked from does.
      if (!isByLink(route))
        for (const token of [{}, { 'x-csrf-token': foreign.csrf }, { 'x-csrf-token': 'x' }] as Record<string, string>[])
          expect([route, token, (await send(route, { cookie, ...token })).status]).toEqual([route, token, 403]);
      expect([route, (await send(route, { cookie, 'x-csrf-token': csrf, origin: 'https://elsewhere.example' })).status]).toEqual([route, 403]);
    }
    expect(await stored()).toEqual(before);
  });

  it('lets nobody do anything with a session that has ended, or of an account that was shut', async () => {
    const [ended, shut] = [await session('technician'), await session('viewer')];
    await send({ method: 'POST', path: '/api/sign-out' }, { cookie: ended.cookie, 'x-csrf-token': ended.csrf });
    await database('people').where({ login: 'viewer' }).update({ disabled: true });
    const before = await stored();
    for (const { cookie, csrf } of [ended, shut])
      for (const route of routes.filter((one) => one.method !== 'GET' && one.path !== '/api/sign-in' && !isByLink(one)))
        expect([route, (await send(route, { cookie, 'x-csrf-token': csrf })).status]).toEqual([route, 401]);
    expect(await stored()).toEqual(before);
    await database('people').where({ login: 'viewer' }).update({ disabled: false });
  });

  it('answers ids that are none, and bodies of any kind, with a refusal in a sentence', async () => {
    const { cookie, csrf } = await session('admin');
    const before = await stored();
    const headers = { cookie, 'x-csrf-token': csrf, 'content-type': 'application/json' };
    const refused = async (method: string, path: string, body?: string): Promise<void> => {
      const response = await fetch(`${world.server.address}${path}`, {
        method,
        headers,
        ...(body === undefined ? {} : { body }),
        signal: AbortSignal.timeout(10_000),
      });
      const text = await response.text();
      expect(`${method} ${path} ${body} ${response.status} ${text}`).toMatch(/ 4\d\d \{/);
      expect(text).toMatch(/"title":"[A-Z“"\\][^"]{5,}/);
    };
    const zero = '00000000-0000-0000-0000-000000000000';
    const elsewhere = routes.map(({ method, path }) => ({ method, path: path.replace(move, zero).replace(leg, zero) }));
    const withIds = elsewhere.filter(({ path }) => path.includes(zero));
    expect(withIds.length).toBeGreaterThan(30);
    for (const { method, path } of withIds)
      for (const id of ['x', '%27%20or%201=1', '0', zero.slice(1), '..%2f..%2fetc', '%F0%9F%9B%B6', 'a'.repeat(3000)])
        await refused(method, path.replaceAll(zero, id), method === 'GET' ? undefined : '{}');
    const bodies = ['[]', '"x"', '7', 'null', '{"id":{"$gt":""}}', '{"__proto__":{"role":"administrator"}}', '{"rows":[[[]]],"text":{},"data":[1]}', 'x', ''];
    const changing = elsewhere.filter(({ method, path }) => method !== 'GET' && !['/api/sign-out', '/api/clock'].includes(path));
    for (const { method, path } of changing) for (const body of bodies) await refused(method, path, body);
    expect(await stored()).toEqual(before);
  });

  it('ends a session at sign-out', async () => {
    const { cookie, csrf } = await session('technician');
    expect((await send({ method: 'POST', path: '/api/sign-out' }, { cookie, 'x-csrf-token': csrf })).status).toBe(200);
    expect((await send({ method: 'GET', path: '/api/me' }, { cookie })).status).toBe(401);
  });

  describe('guessing', () => {
    const guess = (login: string, from: string, password = 'wrong'): Promise<Response> =>
      fetch(`${world.server.address}/api/sign-in`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', 'x-forwarded-for': from },
        body: JSON.stringify({ login, password }),
      });
    const codes = async (all: Promise<Response>[]): Promise<Record<number, number>> => {
      const counted: Record<number, number> = {};
      for (const { status } of await Promise.all(all)) counted[status] = (counted[status] ?? 0) + 1;
      return counted;
    };

    it('is answered the same for an unknown login, and has to wait longer and longer', async () => {
      const known = (await (await guess('viewer', '192.0.2.7')).json()) as { title: string };
      const unknown = (await (await guess('nobody', '192.0.2.7')).json()) as { title: string };
      expect(known.title).toBe(unknown.title);
      for (let i = 0; i < 3; i++) await guess('viewer', '192.0.2.7');
      const shut = await guess('viewer', '192.0.2.7');
      expect([shut.status, await shut.text()]).toEqual([429, expect.stringMatching(/Too many failed tries\. Try again in \d+ s/)]);
      // The right password has to wait there too.
      expect((await guess('viewer', '192.0.2.7', DEMO_PASSWORD)).status).toBe(429);
    });

    it('of 150 at once tries ten, and locks nobody out elsewhere', async () => {
      const counted = await codes(Array.from({ length: 150 }, () => guess('technician', '192.0.2.66')));
      expect(counted[401]).toBeGreaterThan(0);
      expect(counted[401]).toBeLessThanOrEqual(10);
      expect((counted[401] ?? 0) + (counted[429] ?? 0)).toBe(150);
      expect((await guess('technician', '192.0.2.80', DEMO_PASSWORD)).status).toBe(200);
    });

    it('from many addresses is stopped for that login, save from where it has signed in before', async () => {
      expect((await guess('admin', '198.51.100.5', DEMO_PASSWORD)).status).toBe(200);
      const many = Array.from({ length: 60 }, (_, host) => `203.0.113.${host}`);
      let tried = 0;
      for (let round = 0; round < 3; round++) tried += (await codes(many.map((from) => guess('admin', from))))[401] ?? 0;
      expect(tried).toBeLessThanOrEqual(100);
      expect((await guess('admin', '203.0.113.200', DEMO_PASSWORD)).status).toBe(429);
      expect((await guess('admin', '198.51.100.5', DEMO_PASSWORD)).status).toBe(200);
    });

    it('is on record, without what was typed as a password', async () => {
      expect((await guess('nobody\u001b\u007f', '192.0.2.9', 'a-password-that-nobody-has')).status).toBe(401);
      const events = await database<{ kind: string; text: string; after: unknown }>('events').where({ kind: 'sign-in' });
      expect(events.map((one) => one.text)).toEqual(
        expect.arrayContaining(['A sign-in as nobody?? from 192.0.2.9 failed.', 'Technician signed in from 192.0.2.80.']),
      );
      expect(JSON.stringify(events)).not.toMatch(/a-password-that-nobody-has/);
    });
  });

  describe('what is not read', () => {
    /** What is answered to headers alone, while the body that they promise does not come. */
    const answered = (path: string, headers: Record<string, string>): Promise<string> =>
      new Promise((resolve, reject) => {
        const { hostname, port } = new URL(world.server.address);
        const socket = connect(Number(port), hostname, () => {
          const lines = Object.entries({ host: 'x', 'content-type': 'application/json', 'content-length': '900000', ...headers });
          socket.write(`POST ${path} HTTP/1.1\r\n${lines.map(([name, value]) => `${name}: ${value}\r\n`).join('')}\r\n`);
        });
        socket.once('data', (data) => {
          resolve(data.toString('latin1').split('\r\n')[0]!);
          socket.destroy();
        });
        socket.once('error', reject);
      });

    it('is the body of a stranger', async () => {
      for (const path of ['/api/moves', `/api/legs/${leg}/in-hand`, '/api/nothing-of-the-kind']) expect(await answered(path, {})).toMatch(/401/);
      for (const path of ['/api/sign-in', '/api/begin', '/api/sheets/x/typed']) expect(await answered(path, {})).toMatch(/413/);
      expect(await answered('/api/moves', { cookie: 'wanderon_session=of-nobody' })).toMatch(/401/);
    });

    it.each([
      ['a body that is packed', { 'content-encoding': 'gzip' }, '{}', 415],
      ['a charset that there is not', { 'content-type': 'application/json; charset=none' }, '{}', 415],
      ['what is no JSON', {}, '{"domain":', 400],
      ['NUL', {}, '{"domain":"a\\u0000.example","scope":"whole"}', 400],
      ['half a character', {}, '{"domain":"\\ud800.example","scope":"whole"}', 400],
      ['what is nested without end', {}, `{"domain":${'['.repeat(50_000)}${']'.repeat(50_000)}}`, 400],
    ] as [string, Record<string, string>, string, number][])('is %s', async (_what, headers, body, status) => {
      const { cookie, csrf } = await session('technician');
      const response = await fetch(`${world.server.address}/api/moves`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', cookie, 'x-csrf-token': csrf, ...headers },
        body,
      });
      expect([response.status, ((await response.json()) as { title: string }).title]).toEqual([status, expect.stringMatching(/^[A-Z].{5,}/)]);
    });

    it('are addresses that cannot be read', async () => {
      const { cookie } = await session('technician');
      for (const path of ['/api/moves/%E0%A4%A', '/api/moves?text=%00', '/api/moves/%00', `/api/legs/${leg}/rows/x%27--`, '/api/hosts/none'])
        expect(`${path} ${(await send({ method: 'GET', path }, { cookie })).status}`).toMatch(/ 4\d\d$/);
    });
  });

  it('never gives a key away, and keeps it sealed', async () => {
    const secret = world.lab.hosts[0]!.key!.secret;
    for (const route of routes.filter(({ method, path }) => method === 'GET' && path !== '/api/live')) {
      const { cookie } = await session('admin');
      expect(await (await send(route, { cookie })).text()).not.toContain(secret);
    }
    const everything = JSON.stringify(await stored()) + (await database('secrets')).map((row: { sealed: Buffer }) => row.sealed.toString('base64')).join();
    expect(everything).not.toContain(secret);
    expect(everything).not.toContain(Buffer.from(secret, 'base64').toString('hex'));
  });

  it('keeps the trail and the surveys as they were written', async () => {
    for (const statement of [
      'delete from decisions',
      'delete from events',
      "update events set text = ''",
      'truncate events',
      'delete from observations',
      'truncate observations',
      'update observations set last_seen = last_seen - 1',
      'update observations set count = 0',
      "update observations set value = '{}'",
      'update observations set first_seen = 0',
      'delete from survey_sets',
      'update surveys set taken_at = 0',
    ])
      await expect(database.raw(statement)).rejects.toThrow(/append-only/);
  });

  it('lets the role under which it runs neither change what is evidence nor what guards it', async () => {
    const running = knex({ client: 'pg', connection: world.server.runner });
    try {
      const said = async (statement: string): Promise<string> =>
        running.raw(statement).then(
          () => 'it was done',
          (error: Error) => error.message,
        );
      const evidence = ['events', 'surveys', 'survey_sets', 'decisions', 'trail_seals'];
      const columns: { table_name: string; column_name: string }[] = await database('information_schema.columns')
        .where({ table_schema: 'public' })
        .whereIn('table_name', evidence)
        .select('table_name', 'column_name');
      const statements = [
        ...columns.map(({ table_name: table, column_name: column }) => `update ${table} set "${column}" = "${column}"`),
        ...[...evidence, 'observations'].flatMap((table) => [
          `delete from ${table}`,
          `truncate ${table}`,
          `alter table ${table} disable trigger all`,
          `drop table ${table} cascade`,
          `alter table ${table} owner to current_user`,
          `create trigger let before update on ${table} for each row execute function suppress_redundant_updates_trigger()`,
        ]),
        ...['drop trigger events_append_only on events', 'drop function refuse_change cascade', "set session_replication_role = 'replica'"],
        'create or replace function refuse_change() returns trigger language plpgsql as $$ begin return new; end $$',
        'create table public.own (n int)',
        'update knex_migrations set batch = 0',
        'set role wanderon',
      ];
      for (const statement of statements) expect(`${statement}: ${await said(statement)}`).toMatch(/permission denied|must be (?:owner|able)/);
      // And goes on by the trigger alone.
      for (const statement of [
        'update observations set count = 0',
        "update observations set value = '{}'",
        'update observations set last_seen = last_seen - 1',
      ])
        expect(`${statement}: ${await said(statement)}`).toMatch(/append-only/);
    } finally {
      await running.destroy();
    }
  });
});

describe('wrong input', () => {
  let world: World;
  beforeAll(async () => {
    world = await openWorld({}, { WANDERON_TRUSTED_PROXIES: '127.0.0.0/8,::1/128' });
  });
  afterAll(() => world.close());

  async function refusal(method: string, path: string, body: unknown): Promise<{ status: number; title: string; field?: string; kept?: string }> {
    try {
      await world.api.call(method, path, body);
    } catch (error) {
      if (error instanceof ApiError) return JSON.parse(error.body) as { status: number; title: string };
      throw error;
    }
    throw new Error(`${method} ${path} was taken`);
  }
  const moves = async (): Promise<unknown[]> => (await world.api.call<{ moves: unknown[] }>('GET', '/api/moves')).moves;

  it.each([
    ['', 'Type a domain name.'],
    ['   ', 'Type a domain name, such as lighthouse.example.'],
    ['not a domain', '"not a domain" is not a domain name.'],
    ['localhost', '"localhost" has no dot. Type the whole domain name, such as lighthouse.example.'],
    ['192.0.2.7', '192.0.2.7 is an address. Type the domain name instead.'],
    ['nowhere-at-all.example', 'nowhere-at-all.example is not delegated: the servers of example know no nameservers for it.'],
    [`${'a'.repeat(64)}.example`, /is not a domain name: a label is longer than 63 octets\.$/],
  ])('%p is refused with one sentence', async (domain, title) => {
    const problem = await refusal('POST', '/api/moves', { domain, scope: 'whole' });
    expect(problem.title).toEqual(typeof title === 'string' ? title : expect.stringMatching(title));
    expect(problem).toMatchObject({ field: 'domain', kept: 'Nothing was changed.' });
    expect(await moves()).toEqual([]);
  });

  it('refuses a domain that another open move covers', async () => {
    const { id } = await world.api.call<{ id: string }>('POST', '/api/moves', { domain: 'https://www.canoe-yard.example/boats?x=1' });
    expect(await refusal('POST', '/api/moves', { domain: 'post@canoe-yard.example' })).toMatchObject({
      status: 409,
      title: 'canoe-yard.example is being moved already.',
    });
    const both = await Promise.allSettled([1, 2, 3].map(() => world.api.call('POST', '/api/moves', { domain: 'gull-radio.example' })));
    expect(both.filter((one) => one.status === 'fulfilled')).toHaveLength(1);
    expect(await moves()).toHaveLength(2);
    await world.api.call('DELETE', `/api/moves/${id}`);
    await world.api.call('POST', '/api/moves', { domain: 'canoe-yard.example' });
  });

  it('offers the registrable domain and a deeper name both ways', async () => {
    const read = async (text: string): Promise<string[]> =>
      (await world.api.call<{ choices: { scope: string; names: string[] }[] }>('POST', '/api/domains/read', { text })).choices.map(
        ({ scope, names }) => `${scope} ${names.join(' ')}`,
      );
    expect(await read('https://www.lighthouse-museum.example/visit')).toEqual(['whole lighthouse-museum.example']);
    expect(await read('Crèmerie-Alder.example')).toEqual(['whole xn--crmerie-alder-xgb.example']);
    expect(await read('shop.canoe-yard.example')).toEqual(['whole canoe-yard.example', 'name shop.canoe-yard.example']);
  });

  it('says when the servers above cannot be reached', async () => {
    world.lab.registry.close();
    const problem = await refusal('POST', '/api/moves', { domain: 'lighthouse-museum.example' });
    expect(problem).toMatchObject({ status: 502, field: 'domain', kept: 'Nothing was changed.' });
    expect(problem.title).toMatch(/^The delegation of lighthouse-museum\.example cannot be read: no server of example\. answers\.$/);
  });
});
