import { request } from 'node:http';
import { join } from 'node:path';
import knex from 'knex';
import { Api } from '../../../command/src/api';
import { ROOT } from '../../../command/src/processes';
import { insertLedger } from '../support/largeLedger';
import { ServerUnderTest } from '../support/world';

/** As many record sets as can be given at once. */
const SETS = 40_000;

/** What may be as large as a zone is read beside everything else that the server does. */
describe('a body as large as a zone', () => {
  const server = new ServerUnderTest({ WANDERON_ROOT_HINTS: join(ROOT, 'e2e/corpus/hints') });
  let api: Api;
  let leg: string;

  beforeAll(async () => {
    await server.open();
    await server.signIn('admin');
    const database = knex({ client: 'pg', connection: server.database });
    const { move } = await insertLedger(database, 10);
    ({ id: leg } = await database('legs').where({ move_id: move }).first<{ id: string }>('id'));
    await database.destroy();
    api = await server.signIn('admin');
  });
  afterAll(() => server.close());

  const sets = Array.from({ length: SETS }, (_, index) => ({
    ...{ owner: `name-${index}.seed-library.example.`, type: 'TXT', ttl: 3600 },
    data: [`"${`a long text, number ${index} `.repeat(4)}"`],
  }));
  const outside = { owner: 'name.elsewhere.example.', type: 'A', ttl: 60, data: ['192.0.2.1'] };

  /** Sends a body, and counts what others are answered from when it was sent until its own answer comes. */
  function meanwhile(path: string, method: string, body: string): Promise<{ status: number; text: string; others: number }> {
    return new Promise((resolve, reject) => {
      let sent = false;
      let answered = false;
      let others = 0;
      const asking = async (): Promise<void> => {
        while (!answered) {
          await api.call('GET', '/api/me');
          if (sent && !answered) others += 1;
        }
      };
      const asked = asking();
      const out = request(`${server.address}${path}`, { method, headers: { ...api.headers, 'content-type': 'application/json' } }, (response) => {
        answered = true;
        let text = '';
        response.on('data', (part) => (text += String(part)));
        response.on('end', () => void asked.then(() => resolve({ status: response.statusCode!, text, others }), reject));
      });
      out.on('error', reject);
      out.end(body, () => (sent = true));
    });
  }

  it('keeps nobody else waiting while it is read, and is refused by the set that is wrong', async () => {
    const body = JSON.stringify({ names: [], sets: [...sets.slice(1), outside] });
    expect(body.length).toBeGreaterThan(7_000_000);
    const { status, text, others } = await meanwhile(`/api/legs/${leg}/in-hand`, 'POST', body);
    expect([status, text]).toEqual([400, expect.stringContaining('name.elsewhere.example. A cannot be taken: it is outside the zone.')]);
    // Read among them, it would let one or two through at most.
    expect(others).toBeGreaterThan(5);
  });

  it('is taken whole, several at once', async () => {
    const plan = (from: number): Promise<unknown> =>
      api.call('PUT', `/api/legs/${leg}/plan`, {
        sets: sets.slice(from, from + 2000).map((set) => ({ ...set, type: 'A', data: [`192.0.2.${from / 2000}`] })),
      });
    await Promise.all([plan(2000), plan(4000), plan(6000)]);
    await plan(8000);
    const { rulings } = await api.call<{ rulings: { owner: string; planned: { data: string[] } | null }[] }>('GET', `/api/legs/${leg}/ledger?limit=5000`);
    const planned = rulings.filter((row) => row.planned?.data[0] === '192.0.2.4').map((row) => row.owner);
    expect([planned.length, planned.includes('name-8000.seed-library.example.'), planned.includes('name-9999.seed-library.example.')]).toEqual([
      2000,
      true,
      true,
    ]);
  });

  it('says what it is: another charset and no JSON are refused', async () => {
    const answer = async (type: string, body: string): Promise<[number, string]> => {
      const response = await fetch(`${server.address}/api/legs/${leg}/plan`, { method: 'PUT', headers: { ...api.headers, 'content-type': type }, body });
      return [response.status, ((await response.json()) as { title: string }).title];
    };
    expect(await answer('application/json; charset=utf-16', '{}')).toEqual([415, expect.stringMatching(/charset "UTF-16"/i)]);
    expect(await answer('application/json', '{"sets": [}')).toEqual([400, expect.stringMatching(/^It is no JSON/)]);
    expect((await answer('text/plain', '{"sets": []}'))[0]).toBe(400);
    expect((await answer('application/json', ' '.repeat(9_000_000)))[0]).toBe(413);
  });
});
