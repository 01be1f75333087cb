import { join } from 'node:path';
import { Acted, LedgerPage } from '@wanderon/contract';
import { rowSeen } from '@wanderon/core';
import knex, { Knex } from 'knex';
import { Api, until } from '../../../command/src/api';
import { DEMO_PASSWORD } from '../../../command/src/demoData';
import { ROOT } from '../../../command/src/processes';
import { ALIAS, LargeLedger, insertLedger } from '../support/largeLedger';
import { codeAt } from '../support/totp';
import { ServerUnderTest } from '../support/world';

/** Written by the engine, by whoever looks, or by each request; nothing of it is a person's act. */
const NOT_OF_ACTS = [
  'events',
  'trail_seals',
  'observations',
  'claims',
  'website_looks',
  'sign_in_limits',
  'failing',
  'knex_migrations',
  'knex_migrations_lock',
];
/** Columns that are not compared: when somebody was there, and what the engine makes of a move. */
const PASSING = ['seen_at', 'version', 'summarised', 'summary', 'wake_at', 'desk_group', 'desk_due'];
/** The code that an app shows now: the server's clock is the machine's here. */
const now = (secret: string): string => codeAt(secret, Date.now() / 1000);
const OTHER_PASSWORD = 'something else that is long enough';

interface Request {
  readonly method: string;
  readonly path: string;
  readonly body?: unknown;
  /** Somebody else than the administrator; undefined headers: nobody. */
  readonly headers?: Readonly<Record<string, string>>;
}

/** Changing routes that are not driven here, and why. */
const NOT_DRIVEN: Readonly<Record<string, string>> = {
  'POST /api/domains/read': 'reads alone',
  'POST /api/legs/{leg}/cursor': 'is kept nowhere',
  'POST /api/clock': 'is there in the lab alone',
  'POST /api/moves': 'asks the parent first, whom nobody plays here',
};
/** Acts on a move that need another state of it; all of them are done by `MoveActs.act`, as those that are driven are. */
const BY_THE_SAME_WAY =
  /^(?:POST|PUT|DELETE) \/api\/(?:legs\/\{leg\}\/(?:hosts|next|back|push|nameservers|fronting|submitted|waive|given|stored|hints|hints\/name|purposes|pages|in-hand|survey|stop-survey|rules\/\{rule\}|website|site|ways)|moves\/\{id\}\/close)$/;

describe('a person’s act and its word in the trail', () => {
  const server = new ServerUnderTest({ WANDERON_ROOT_HINTS: join(ROOT, 'e2e/corpus/hints') });
  const driven = new Set<string>();
  let database: Knex;
  let api: Api;
  let ledger: LargeLedger;
  let columns: Map<string, string[]>;

  beforeAll(async () => {
    await server.open();
    database = knex({ client: 'pg', connection: server.database });
    ledger = await insertLedger(database, ALIAS + 1);
    api = await server.signIn('admin');
    await database.raw('create table failing (what text)');
    await database.raw('grant select on failing to public');
    await database.raw(`create function fail() returns trigger language plpgsql as $$
      begin
        if exists (select from failing where what = tg_argv[0]) then raise exception 'seeded fault of %', tg_argv[0]; end if;
        return null;
      end $$`);
    const rows: { table_name: string; column_name: string }[] = await database('information_schema.columns')
      .join('information_schema.tables', (on) => void on.using(['table_schema', 'table_name']))
      .where({ table_schema: 'public', table_type: 'BASE TABLE' })
      .orderBy(['table_name', 'ordinal_position'])
      .select('table_name', 'column_name');
    columns = new Map();
    for (const { table_name: table, column_name: column } of rows)
      if (!NOT_OF_ACTS.includes(table)) columns.set(table, [...(columns.get(table) ?? []), ...(PASSING.includes(column) ? [] : [column])]);
    // Both fail when the transaction in which they stand is to be committed: what was written in another one is there then.
    for (const table of columns.keys())
      await database.raw(
        `create constraint trigger seeded after insert or update or delete on ?? deferrable initially deferred for each row execute function fail('data')`,
        [table],
      );
    await database.raw(
      `create constraint trigger seeded after insert on events deferrable initially deferred for each row when (new.person_id is not null or new.kind = 'typed') execute function fail('events')`,
    );
  });
  afterAll(async () => {
    await database.destroy();
    await server.close();
  });

  async function stored(): Promise<Record<string, string>> {
    const all: Record<string, string> = {};
    for (const [table, names] of columns) {
      const { rows } = await database.raw<{ rows: { sum: string }[] }>(
        `select coalesce(md5(string_agg(t::text, ',' order by t::text)), '') as sum from (select ${names.map(() => '??').join(', ')} from ??) t`,
        [...names, table],
      );
      all[table] = rows[0]!.sum;
    }
    return all;
  }
  const told = async (): Promise<number> =>
    Number(
      (
        await database('events')
          .where((any) => void any.whereNotNull('person_id').orWhere('kind', 'typed'))
          .count<{ count: string }[]>('* as count')
      )[0]!.count,
    );
  const send = ({ method, path, body, headers }: Request): Promise<Response> =>
    fetch(`${server.address}${path}`, {
      method,
      headers: { ...(headers ?? api.headers), 'content-type': 'application/json' },
      ...(method === 'DELETE' ? {} : { body: JSON.stringify(body ?? {}) }),
    });

  /** An act that fails where its event does, and where its data does, and is done with both; gives its answer. */
  async function act<T>(route: string, request: Request): Promise<T> {
    driven.add(route);
    const before = { data: await stored(), events: await told() };
    for (const what of ['events', 'data']) {
      await database('failing').insert({ what });
      const response = await send(request);
      await database('failing').delete();
      const said = await response.text();
      expect([route, what, response.status, said]).toEqual([route, what, 500, said]);
      expect([route, what, await stored(), await told()]).toEqual([route, what, before.data, before.events]);
    }
    const response = await send(request);
    const text = await response.text();
    expect([route, response.status, text]).toEqual([route, response.ok ? response.status : 200, text]);
    expect([route, await told()]).toEqual([route, before.events + 1]);
    expect([route, await stored()]).not.toEqual([route, before.data]);
    return JSON.parse(text) as T;
  }

  it('are one transaction in what is done about people', async () => {
    const one = { login: 'one', name: 'One', role: 'technician', password: DEMO_PASSWORD, mustChange: false };
    const { id } = await act<{ id: string }>('POST /api/people', { method: 'POST', path: '/api/people', body: one });
    const edit = { name: 'First', role: 'technician', disabled: false, demanded: false };
    await act('PUT /api/people/{id}', { method: 'PUT', path: `/api/people/${id}`, body: edit });
    await server.signIn('one');
    await act('POST /api/people/{id}/sign-out', { method: 'POST', path: `/api/people/${id}/sign-out` });
    await act('PUT /api/people/{id}/password', { method: 'PUT', path: `/api/people/${id}/password`, body: { password: OTHER_PASSWORD } });
  });

  it('are one transaction in what people do about their own account', async () => {
    await api.call('POST', '/api/people', { login: 'two', name: 'Two', role: 'technician', password: DEMO_PASSWORD, mustChange: false });
    const { id } = await database('people').where({ login: 'two' }).first<{ id: string }>('id');
    // Nobody is signed in of whom it is not on record.
    const body = { login: 'two', password: DEMO_PASSWORD };
    await act('POST /api/sign-in', { method: 'POST', path: '/api/sign-in', body, headers: {} });
    const [own, other] = [await server.signIn('two'), await server.signIn('two')];
    const session = (await other.call<{ sessions: { id: string; own: boolean }[] }>('GET', '/api/me/sessions')).sessions.find((entry) => entry.own)!;
    const { headers } = own;
    await act('DELETE /api/me/sessions/{id}', { method: 'DELETE', path: `/api/me/sessions/${session.id}`, headers });
    const { secret } = await own.call<{ secret: string }>('POST', '/api/me/second-factor', { password: DEMO_PASSWORD });
    driven.add('POST /api/me/second-factor');
    await act('PUT /api/me/second-factor', { method: 'PUT', path: '/api/me/second-factor', body: { code: now(secret) }, headers });
    const password = { password: DEMO_PASSWORD };
    await act('POST /api/me/second-factor/codes', { method: 'POST', path: '/api/me/second-factor/codes', body: password, headers });
    await act('POST /api/me/second-factor/off', { method: 'POST', path: '/api/me/second-factor/off', body: password, headers });
    const change = { current: DEMO_PASSWORD, password: OTHER_PASSWORD };
    await act('PUT /api/me/password', { method: 'PUT', path: '/api/me/password', body: change, headers });
    await act('POST /api/sign-out', { method: 'POST', path: '/api/sign-out', headers });
    const again = await new Api(server.address).signIn('two', OTHER_PASSWORD);
    const offer = await again.call<{ secret: string }>('POST', '/api/me/second-factor', { password: OTHER_PASSWORD });
    await again.call('PUT', '/api/me/second-factor', { code: now(offer.secret) });
    await act('DELETE /api/people/{id}/second-factor', { method: 'DELETE', path: `/api/people/${id}/second-factor` });
  });

  it('are one transaction in what is known of hosts, their keys included', async () => {
    const host = {
      name: 'A host',
      role: 'dns',
      nameservers: ['ns1.host.example.'],
      addresses: ['192.0.2.53'],
      aliasTarget: null,
      requires: [],
      updateAddress: '192.0.2.53',
      note: '',
    };
    const key = { name: 'a.key.', algorithm: 'hmac-sha256', secret: Buffer.alloc(32, 9).toString('base64') };
    const { id } = await act<{ id: string }>('POST /api/hosts', { method: 'POST', path: '/api/hosts', body: { ...host, key } });
    await act('PUT /api/hosts/{id}', { method: 'PUT', path: `/api/hosts/${id}`, body: { ...host, name: 'Another name' } });
  });

  it('are one transaction in what is decided of a move', async () => {
    const { leg, rows, move } = ledger;
    const at = `/api/legs/${leg}`;
    const on = <T = Acted>(method: string, path: string, body?: unknown, route = path): Promise<T> =>
      act<T>(`${method} /api/legs/{leg}${route}`, { method, path: `${at}${path}`, body });
    const page = (): Promise<LedgerPage> => api.call<LedgerPage>('GET', `${at}/ledger?limit=2000`);
    const set = { owner: rows[5]!.owner, type: 'A' };
    await on('PUT', `/rulings/${rows[3]!.id}`, { ruling: 'drop' }, '/rulings/{ruling}');
    await on('POST', '/undo');
    await on('POST', '/redo');
    await on('PUT', '/rulings', { rows: [rows[4]!.id, rows[5]!.id], ruling: 'drop' });
    await on('POST', '/rulings', { owner: 'fresh', type: 'A', ttl: '300', data: '192.0.2.9' });
    const like = (await page()).rulings.filter((row) => row.owner.includes('name-60'));
    const seen = like.map((row) => rowSeen({ ruling: row.ruling, planned: row.planned ?? undefined }));
    await on('PUT', '/rules', { like: 'name-60', group: null, ruling: 'drop', rows: like.map((row) => row.id), seen });
    const [rule] = (await page()).rules;
    await on('DELETE', `/rules/${rule!.id}`, undefined, '/rules/{rule}');
    await on('POST', `/rows/${rows[6]!.id}/comments`, { text: 'Look.' }, '/rows/{row}/comments');
    const story = await api.call<{ comments: { id: number }[] }>('GET', `${at}/rows/${rows[6]!.id}`);
    await on('DELETE', `/comments/${story.comments[0]!.id}`, undefined, '/comments/{comment}');
    const remark = (await page()).remarks.find((one) => one.code === 'alias-beside-data')!;
    const of = { owner: remark.owner, type: remark.type, code: remark.code };
    await on('POST', '/remarks', { ...of, fact: remark.fact, reason: 'it may be so' });
    await on('POST', '/mend', { ...of, fix: remark.fixes[0]!.key });
    const sets = (await page()).rulings.flatMap((row) => row.planned ?? []).slice(1);
    await on('PUT', '/plan', { sets });
    await on('POST', '/panel', { sets: [{ ...set, ttl: 300, data: ['192.0.2.1'] }] });
    await on('POST', '/typed', { row: 'a row', typed: true });
    await on('POST', '/approve', { lowerAt: null, plannedSwitch: null, lowerTo: 300 });
    const link = await on<{ id: string; path: string }>('POST', '/sheet-links', { days: 1 });
    const sheet = `/api/sheets/${link.path.split('/').at(-1)!}`;
    const open = (await (await fetch(`${server.address}${sheet}`)).json()) as { rows: { id: string }[] };
    const tick = { row: open.rows[0]!.id, typed: true };
    await act('POST /api/sheets/{secret}/typed', { method: 'POST', path: `${sheet}/typed`, body: tick, headers: {} });
    await on('POST', `/sheet-links/${link.id}/withdraw`, undefined, '/sheet-links/{id}/withdraw');
    await act('DELETE /api/moves/{id}', { method: 'DELETE', path: `/api/moves/${move}` });
  });

  it('are one transaction in a sweep', async () => {
    const body = { name: 'Some', text: 'one.example\ntwo.example' };
    const { id } = await act<{ id: string }>('POST /api/sweeps', { method: 'POST', path: '/api/sweeps', body });
    // What the sweep does meanwhile is no act: it has come to its end.
    await until('the sweep is over', async () => (await api.call<{ waiting: number; state: string }>('GET', `/api/sweeps/${id}`)).state !== 'running');
    await act('POST /api/sweeps/{id}', { method: 'POST', path: `/api/sweeps/${id}`, body: { action: 'retry' } });
  });

  it('are so in every act that there is', async () => {
    const document = await api.call<{ paths: Record<string, Record<string, unknown>> }>('GET', '/api/openapi.json');
    const routes = Object.entries(document.paths).flatMap(([path, methods]) => Object.keys(methods).map((method) => `${method.toUpperCase()} ${path}`));
    const left = routes.filter((route) => !route.startsWith('GET ') && !driven.has(route) && !(route in NOT_DRIVEN) && !BY_THE_SAME_WAY.test(route));
    expect(left).toEqual([]);
    expect(driven.size).toBeGreaterThan(35);
  });
});
