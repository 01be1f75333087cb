import { readFileSync } from 'node:fs';
import { Agent, request } from 'node:http';
import { Knex } from 'knex';
import { startApp } from './support/app';
import { MOVES, SETS, fill } from './support/fill';
import { largeZone } from './support/largeZone';
import { median, spread } from './support/measure';

const ROUNDS = 25;
/** Each act of a round is done so often, and the median taken, as of the reference. */
const REPEATS = 5;
/** Rounds that are not counted: a server that has been running for a while is what people meet. */
const WARMING = 5;

/** What acts and pages cost with a zone of 5,000 sets and 5,000 open moves, against one indexed single-row update-and-commit. */
async function main(): Promise<void> {
  const app = await startApp();
  const { database, port, api } = app;
  try {
    const leg = await fill(database);
    const { id: move } = await database('legs').where({ id: leg }).first<{ id: string }>('move_id as id');
    const { rulings } = await api.call<{ rulings: { id: string; ruling: string }[] }>('GET', `/api/legs/${leg}/ledger`);
    // Somebody works through the rows one after the other.
    let turn = 0;
    const row = (): string => rulings[turn++ % rulings.length]!.id;
    await api.call('GET', '/api/moves?state=open&order=due&limit=50');
    const ask = asker(port, api.headers);
    const told = await listener(port, api.headers, move);
    const approve = (): Promise<Buffer> => ask('POST', `/api/legs/${leg}/approve`, { lowerAt: null, plannedSwitch: null, lowerTo: 300 });
    // The same ruling again would change nothing: each time through the zone it is the other one.
    let many = 0;
    const ruleMany = (): Promise<Buffer> => {
      const from = (many++ * 500) % rulings.length;
      const ruling = Math.floor(((many - 1) * 500) / rulings.length) % 2 === 0 ? 'drop' : 'carry';
      return ask('PUT', `/api/legs/${leg}/rulings`, { ruling, rows: rulings.slice(from, from + 500).map(({ id }) => id) });
    };
    const acts: [string, () => Promise<Buffer>][] = [
      ['who is signed in', () => ask('GET', '/api/me')],
      ['a ruling', () => ask('PUT', `/api/legs/${leg}/rulings/${row()}`, { ruling: 'drop' })],
      ['an undo', () => ask('POST', `/api/legs/${leg}/undo`, {})],
      ['a redo', () => ask('POST', `/api/legs/${leg}/redo`, {})],
      ['a comment', () => ask('POST', `/api/legs/${leg}/rows/${row()}/comments`, { text: 'Look again.' })],
      ['a tick of the sheet', () => ask('POST', `/api/legs/${leg}/typed`, { row: row(), typed: true })],
      ["the Desk's first page", () => ask('GET', '/api/moves?state=open&order=due&limit=50')],
      ['a ruling, to its live event', () => told(() => ask('PUT', `/api/legs/${leg}/rulings/${row()}`, { ruling: 'carry' }))],
      ["a move's head", () => ask('GET', `/api/moves/${move}`)],
      ["the ledger's first page", () => ask('GET', `/api/legs/${leg}/ledger`)],
      // These rest on the whole plan, and wake the engine: one upon the other, each waits for what the engine works out of the one before.
      ['an approval', approve],
      ['500 rulings', ruleMany],
      ['approvals one upon the other', approve],
      ['500 rulings upon 500 rulings', ruleMany],
    ];
    const FROM_REST: ReadonlySet<string> = new Set(['an approval', '500 rulings']);
    const queries = queryCounter(database, app.log);
    const results = new Map(acts.map(([name]) => [name, { ratios: [] as number[], bytes: 0, queries: 0 }]));
    for (let round = -WARMING; round < ROUNDS; round++) {
      const reference = await commitTime(database);
      for (const [name, act] of acts) {
        const result = results.get(name)!;
        const times: number[] = [];
        for (let i = 0; i < REPEATS; i++) {
          if (FROM_REST.has(name)) await rest(database, move);
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
    await app.stop();
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

/** Waits until the engine has nothing in hand for a move and has said when it comes back to it. */
async function rest(database: Knex, move: string): Promise<void> {
  for (;;) {
    const busy = await database('claims').where({ move_id: move }).first<object | undefined>();
    const due = await database('moves')
      .where({ id: move })
      .where('wake_at', '<=', Date.now() / 1000)
      .first<object | undefined>('id');
    if (!busy && !due) return;
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
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

/** What the engine asks by itself whether or not somebody acts. */
const ENGINES_OWN = /claims|pgboss|trail_seals|jobs\.|set "wake_at" = \$1 where|"wake_at" </;

/** Statements that the database is sent while something is done: its log is asked for all of them meanwhile. */
function queryCounter(database: Knex, log: string): (act: () => Promise<unknown>) => Promise<number> {
  const lines = (): number =>
    readFileSync(log, 'utf8')
      .split('\n')
      .filter((line) => /LOG: {2}(statement|execute)/.test(line) && !ENGINES_OWN.test(line)).length;
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

void main().then(largeZone);
