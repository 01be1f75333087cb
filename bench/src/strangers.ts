import { Agent, request } from 'node:http';
import { startApp } from './support/app';
import { fill } from './support/fill';
import { median, spread } from './support/measure';

const STRANGERS = 1000;
const AT_ONCE = 50;
const ROUNDS = 5;
/** Requests of somebody who is signed in, for the time that they usually take. */
const USUAL = 60;

interface Wish {
  readonly method: string;
  readonly path: string;
  readonly body?: string;
  readonly headers?: Readonly<Record<string, string>>;
}

/** What strangers send: what is read without a session, what is refused, what is guessed, and bodies that nobody reads. */
const OF_STRANGERS: readonly Wish[] = [
  { method: 'GET', path: '/' },
  { method: 'GET', path: '/api/me' },
  { method: 'GET', path: '/api/moves?state=open' },
  { method: 'POST', path: '/api/moves', body: JSON.stringify({ domain: 'x'.repeat(200_000) }) },
  { method: 'POST', path: '/api/sign-in', body: JSON.stringify({ login: 'admin', password: 'a guess that is long enough' }) },
  { method: 'POST', path: '/api/sign-in', body: `{"login":${'['.repeat(2000)}` },
  { method: 'GET', path: '/api/sheets/of-nobody' },
  { method: 'PUT', path: '/api/hosts/x', body: '{}', headers: { cookie: 'wanderon_session=of-nobody' } },
  { method: 'GET', path: `/${'../'.repeat(50)}etc` },
  { method: 'DELETE', path: '/api/people/x' },
];

/** What a thousand requests of people who are not signed in do to the requests of one who is. */
async function main(): Promise<void> {
  const app = await startApp();
  try {
    const leg = await fill(app.database);
    const { id: move } = await app.database('legs').where({ id: leg }).first<{ id: string }>('move_id as id');
    const own: readonly Wish[] = [`/api/me`, `/api/moves?state=open&order=due&limit=50`, `/api/moves/${move}`].map((path) => ({ method: 'GET', path }));
    const mine = sender(app.port, 1, app.api.headers);
    for (const wish of own) for (let i = 0; i < 20; i++) await mine(wish);
    const middle: number[] = [];
    const late: number[] = [];
    for (let round = 0; round < ROUNDS; round++) {
      const usual = await times(mine, own, () => USUAL);
      let open = true;
      const storm = strangers(app.port).finally(() => (open = false));
      const meanwhile = await times(mine, own, () => (open ? Infinity : 0));
      const answered = await storm;
      middle.push(median(meanwhile) / median(usual));
      late.push(at95(meanwhile) / at95(usual));
      if (round === 0) console.log(`strangers were answered ${[...answered].map(([status, count]) => `${status}: ${count}`).join(', ')}`);
    }
    console.log(`a signed-in person’s requests while ${STRANGERS} of strangers come, ${AT_ONCE} at once: ${spread(middle)} times as long as usual`);
    console.log(`the slowest twentieth of them: ${spread(late)} times as long as usual`);
  } finally {
    await app.stop();
  }
}

/** Milliseconds of requests one after the other, in turn, for as long as `more` has it. */
async function times(send: (wish: Wish) => Promise<number>, wishes: readonly Wish[], more: () => number): Promise<number[]> {
  const all: number[] = [];
  while (all.length < more()) {
    const began = performance.now();
    await send(wishes[all.length % wishes.length]!);
    all.push(performance.now() - began);
  }
  return all;
}

/** A thousand requests, a number of them at once; gives how many were answered with which status. */
async function strangers(port: number): Promise<ReadonlyMap<number, number>> {
  const send = sender(port, AT_ONCE, {});
  const answered = new Map<number, number>();
  let next = 0;
  const work = async (): Promise<void> => {
    while (next < STRANGERS) {
      const status = await send(OF_STRANGERS[next++ % OF_STRANGERS.length]!);
      answered.set(status, (answered.get(status) ?? 0) + 1);
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, work));
  return new Map([...answered].sort(([a], [b]) => a - b));
}

/** Sends over connections that stand; gives the status, 0 where the connection was cut. */
function sender(port: number, sockets: number, own: Readonly<Record<string, string>>): (wish: Wish) => Promise<number> {
  const agent = new Agent({ keepAlive: true, maxSockets: sockets });
  return ({ method, path, body, headers }) =>
    new Promise((resolve) => {
      const options = { host: '127.0.0.1', port, agent, method, path, headers: { ...own, ...headers, 'content-type': 'application/json' } };
      const sent = request(options, (response) => {
        response.resume();
        response.on('end', () => resolve(response.statusCode ?? 0));
        response.on('error', () => resolve(0));
      });
      sent.on('error', () => resolve(0));
      sent.end(body);
    });
}

function at95(all: readonly number[]): number {
  return [...all].sort((a, b) => a - b)[Math.floor(all.length * 0.95)]!;
}

void main();
