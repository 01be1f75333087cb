import { randomBytes, randomUUID } from 'node:crypto';
import { chmodSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { Agent, request } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import knex, { Knex } from 'knex';
import { Api } from '../../command/dist/api';
import { clusterFolder, freePort, startPostgres } from '../../command/dist/postgres';
import { startNode } from '../../command/dist/processes';
import { median, spread } from './support/measure';

const SETS = 5000;
const MOVES = 5000;
const ROUNDS = 25;
/** Each act of a round is done so often, and the median taken, as of the reference. */
const REPEATS = 5;
/** Rounds that are not counted: a server that has been running for a while is what people meet. */
const WARMING = 5;
const PASSWORD = 'bench-and-nothing-else';

/** What acts and pages cost with a zone of 5,000 sets and 5,000 open moves, against one indexed single-row update-and-commit. */
async function main(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'wanderon-bench-'));
  chmodSync(folder, 0o711);
  const cluster = clusterFolder(join(folder, 'postgres'), `bench-${process.pid}`);
  const postgres = await startPostgres(cluster, true);
  const hints = join(folder, 'hints');
  writeFileSync(hints, '. 3600 NS root.bench.test.\nroot.bench.test. 3600 A 127.0.0.1\n');
  const port = await freePort();
  const address = `http://127.0.0.1:${port}`;
  const env = {
    WANDERON_DATABASE: postgres.url,
    WANDERON_SECRET_KEY: randomBytes(32).toString('base64'),
    WANDERON_PUBLIC_ADDRESS: address,
    WANDERON_PORT: String(port),
    WANDERON_ADMIN_PASSWORD: PASSWORD,
    WANDERON_ROOT_HINTS: hints,
    WANDERON_LOG: 'fatal',
  };
  const server = await startNode('packages/server/dist/main.js', [], env, /^listening (\d+)$/, () => undefined);
  const database = knex({ client: 'pg', connection: postgres.url, pool: { min: 1, max: 1 } });
  try {
    const api = await new Api(address).signIn('admin', PASSWORD);
    const leg = await fill(database);
    const { id: move } = await database('legs').where({ id: leg }).first<{ id: string }>('move_id as id');
    const { rulings } = await api.call<{ rulings: { id: string; ruling: string }[] }>('GET', `/api/legs/${leg}/ledger`);
    // Somebody works through the rows one after the other.
    let turn = 0;
    const row = (): string => rulings[turn++ % rulings.length]!.id;
    await api.call('GET', '/api/moves?state=open&order=due&limit=50');
    const ask = asker(port, api.headers);
    const told = await listener(port, api.headers, move);
    const acts: [string, () => Promise<Buffer>][] = [
      ['who is signed in', () => ask('GET', '/api/me')],
      ['a ruling', () => ask('PUT', `/api/legs/${leg}/rulings/${row()}`, { ruling: 'drop' })],
      ['an undo', () => ask('POST', `/api/legs/${leg}/undo`, {})],
      ['a redo', () => ask('POST', `/api/legs/${leg}/redo`, {})],
      ["the Desk's first page", () => ask('GET', '/api/moves?state=open&order=due&limit=50')],
      ['a ruling, to its live event', () => told(() => ask('PUT', `/api/legs/${leg}/rulings/${row()}`, { ruling: 'carry' }))],
      ["a move's head", () => ask('GET', `/api/moves/${move}`)],
      ["the ledger's first page", () => ask('GET', `/api/legs/${leg}/ledger`)],
    ];
    const queries = queryCounter(database, join(cluster, 'log'));
    const results = new Map(acts.map(([name]) => [name, { ratios: [] as number[], bytes: 0, queries: 0 }]));
    for (let round = -WARMING; round < ROUNDS; round++) {
      const reference = await commitTime(database);
      for (const [name, act] of acts) {
        const result = results.get(name)!;
        const times: number[] = [];
        for (let i = 0; i < REPEATS; i++) {
          const began = performance.now();
          result.bytes = (await act()).length;
          times.push(performance.now() - began);
        }
        if (round >= 0) result.ratios.push(median(times) / reference);
      }
    }
    for (const [name, act] of acts) results.get(name)!.queries = await queries(act);
    for (const [name, { ratios, bytes, queries: made }] of results)
      console.log(
        `${name}, ${SETS} sets and ${MOVES} open moves: ${spread(ratios)} times a single-row update and commit, ${(bytes / 1000).toFixed(1)} KB, ${made} queries`,
      );
  } finally {
    await database.destroy();
    await server.stop('SIGKILL');
    postgres.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Does something and waits until the open page of somebody is told of it; gives the event. */
async function listener(port: number, headers: Readonly<Record<string, string>>, move: string): Promise<(act: () => Promise<unknown>) => Promise<Buffer>> {
  const waiting: ((event: Buffer) => void)[] = [];
  await new Promise<void>((resolve, reject) => {
    const stream = request({ host: '127.0.0.1', port, path: '/api/live', headers }, (response) => {
      response.on('data', (part: Buffer) => {
        if (part.includes(move)) waiting.splice(0).forEach((tell) => tell(part));
      });
      // Cut when the server is stopped at the end.
      response.on('error', () => waiting.splice(0));
      resolve();
    });
    stream.on('error', reject);
    stream.end();
  });
  return async (act) => {
    const event = new Promise<Buffer>((resolve) => waiting.push(resolve));
    await act();
    return event;
  };
}

/** Asks over one standing connection and does no more than that: what is measured is the server. */
function asker(port: number, headers: Readonly<Record<string, string>>): (method: string, path: string, body?: unknown) => Promise<Buffer> {
  const agent = new Agent({ keepAlive: true, maxSockets: 1 });
  return (method, path, body) =>
    new Promise((resolve, reject) => {
      const sent = request({ host: '127.0.0.1', port, path, method, agent, headers: { ...headers, 'content-type': 'application/json' } }, (response) => {
        const parts: Buffer[] = [];
        response.on('data', (part: Buffer) => parts.push(part));
        response.on('error', reject);
        response.on('end', () => {
          const whole = Buffer.concat(parts);
          if (response.statusCode === 200 || response.statusCode === 201) resolve(whole);
          else reject(new Error(`${method} ${path}: ${response.statusCode} ${whole.toString()}`));
        });
      });
      sent.on('error', reject);
      sent.end(body === undefined ? undefined : JSON.stringify(body));
    });
}

/** Milliseconds of an update of one row by its key and the commit of it, by the same driver; the median of many. */
async function commitTime(database: Knex): Promise<number> {
  const times: number[] = [];
  for (let i = 0; i < 60; i++) {
    const began = performance.now();
    await database.transaction((transaction) => transaction('bench').where({ id: i }).increment('n', 1));
    times.push(performance.now() - began);
  }
  return median(times);
}

/** Statements that the database is sent while something is done: its log is asked for all of them meanwhile. */
function queryCounter(database: Knex, log: string): (act: () => Promise<unknown>) => Promise<number> {
  const lines = (): number =>
    readFileSync(log, 'utf8')
      .split('\n')
      .filter((line) => /LOG: {2}(statement|execute)/.test(line) && !/claims|pgboss|jobs\.|wake_at/.test(line)).length;
  return async (act) => {
    await database.raw(`alter system set log_statement = 'all'`);
    await database.raw('select pg_reload_conf()');
    const before = lines();
    await act();
    const made = lines() - before;
    await database.raw('alter system reset log_statement');
    await database.raw('select pg_reload_conf()');
    return made;
  };
}

/** 5,000 open moves with their summaries, and one of a zone of 5,000 sets, half of which change. Gives the leg of that one. */
async function fill(database: Knex): Promise<string> {
  await database.schema.createTable('bench', (table) => {
    table.integer('id').primary();
    table.integer('n').notNullable();
  });
  await database('bench').insert(Array.from({ length: 1000 }, (_, id) => ({ id, n: 0 })));
  const scope = JSON.stringify({ kind: 'whole' });
  const made = Array.from({ length: MOVES }, (_, index) => ({ domain: randomUUID(), move: randomUUID(), leg: randomUUID(), name: `client-${index}.example` }));
  const marks = ['begun', 'surveyed', 'pushed', 'lowered', 'earliest switch'].map((label, index) => ({
    at: 1e9 + index * 3600,
    label,
    kind: 'step',
    derived: null,
  }));
  await database.batchInsert(
    'domains',
    made.map(({ domain, name }) => ({ id: domain, name })),
    500,
  );
  await database.batchInsert(
    'moves',
    made.map(({ move, leg, domain, name }, index) => ({
      id: move,
      domain_id: domain,
      scope,
      state: 'open',
      created_at: 1e9 + index,
      wake_at: null,
      desk_group: 1,
      desk_due: 2e9 + index,
      summary: JSON.stringify({
        id: move,
        leg,
        domain: name,
        shown: name,
        scope: { kind: 'whole' },
        client: null,
        state: 'open',
        createdAt: 1e9 + index,
        from: 'Oldquay DNS',
        to: 'Quillmere DNS',
        next: { step: 'switch', text: 'Change the nameservers', chapter: 'switch', who: 'you', dueAt: 2e9 + index, failed: false },
        marks,
        drain: null,
      }),
    })),
    500,
  );
  await database.batchInsert(
    'legs',
    made.map(({ move, leg }) => ({ id: leg, move_id: move, position: 0, kind: 'delegation', scope, old_nameservers: '[]', new_nameservers: '[]' })),
    500,
  );
  const large = made.at(-1)!;
  const host = randomUUID();
  await database('hosts').insert({
    id: host,
    name: 'New DNS',
    role: 'dns',
    nameservers: JSON.stringify(['ns1.new.example.']),
    addresses: '[]',
    requires: '[]',
    note: '',
  });
  const survey = randomUUID();
  await database('surveys').insert({
    id: survey,
    domain_id: large.domain,
    move_id: large.move,
    taken_at: 1e9,
    parent: 'example.',
    coverage: JSON.stringify({ grade: 'whole', reasons: [] }),
    referrals: '[]',
    authorities: '[]',
    hints: '[]',
  });
  const sets = Array.from({ length: SETS }, (_, index) => {
    const found = { owner: `name-${index}.${large.name}.`, type: 'A', ttl: 3600, data: [`192.0.2.${index % 250}`] };
    const planned = index % 2 === 0 ? { ...found, data: [`203.0.113.${index % 250}`] } : found;
    return { found, planned, ruling: index % 2 === 0 ? 'repoint' : 'carry' };
  });
  await database.batchInsert(
    'rulings',
    sets.map(({ found, planned, ruling }, position) => ({
      id: randomUUID(),
      leg_id: large.leg,
      position,
      owner: found.owner,
      type: 'A',
      ruling,
      found: JSON.stringify(found),
      planned: JSON.stringify(planned),
      reason: '',
    })),
    500,
  );
  const old = ['198.51.100.1', '198.51.100.2'];
  await database('legs')
    .where({ id: large.leg })
    .update({
      survey_id: survey,
      last_survey: survey,
      new_dns_host: host,
      old_nameservers: JSON.stringify(['ns1.old.example.']),
      new_nameservers: JSON.stringify(['ns1.new.example.']),
      old_servers: JSON.stringify(old.map((address) => ({ server: 'ns1.old.example.', address }))),
      new_servers: JSON.stringify([{ server: 'ns1.new.example.', address: '203.0.113.1' }]),
    });
  const answers = Object.fromEntries(sets.map(({ found }) => [`${found.owner}/A`, { ttl: 3600, data: found.data }]));
  await database.batchInsert(
    'observations',
    old.map((subject) => ({
      leg_id: large.leg,
      kind: 'zone',
      subject,
      server: 'ns1.old.example.',
      value: JSON.stringify({ serial: null, refused: false, sets: answers }),
      digest: 'x',
      first_seen: 1e9,
      last_seen: 1e9,
      every: 60,
      count: 1,
    })),
    10,
  );
  return large.leg;
}

void main();
