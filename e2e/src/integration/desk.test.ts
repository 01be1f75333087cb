import { join } from 'node:path';
import { MoveSummary } from '@wanderon/contract';
import { compareOnDesk, deskPlaceOf } from '@wanderon/core';
import knex, { Knex } from 'knex';
import { Api } from '../../../command/src/api';
import { ROOT } from '../../../command/src/processes';
import { insertMoves } from '../support/manyMoves';
import { ServerUnderTest } from '../support/world';

const MOVES = 1200;

/** Far more moves than a page holds: what is due comes first, wherever it was begun. */
describe('the Desk of an agency with many moves', () => {
  const server = new ServerUnderTest({ WANDERON_ROOT_HINTS: join(ROOT, 'e2e/corpus/hints') });
  let database: Knex;
  let api: Api;

  beforeAll(async () => {
    await server.open();
    api = await server.signIn('admin');
    database = knex({ client: 'pg', connection: server.database });
    await insertMoves(database, MOVES);
  });
  afterAll(async () => {
    await database.destroy();
    await server.close();
  });

  const pages = async (query: string, most = Infinity): Promise<MoveSummary[]> => {
    const all: MoveSummary[] = [];
    let after = '';
    do {
      const page = await api.call<{ moves: MoveSummary[]; next: string | null }>('GET', `/api/moves?${query}${after && `&after=${after}`}`);
      all.push(...page.moves);
      after = page.next ?? '';
    } while (after !== '' && all.length < most);
    return all;
  };

  it('begins with what stopped, however long ago it was begun', async () => {
    const [first, second] = await pages('state=open&order=due&limit=50', 50);
    expect([first!.domain, first!.next!.failed, second!.next!.who]).toEqual(['client-0.example', true, 'you']);
  });

  it('has every move on one page of many, in order, many of one moment included', async () => {
    const all = await pages('state=open&order=due&limit=50');
    expect(new Set(all.map((move) => move.id)).size).toBe(MOVES);
    expect(all).toHaveLength(MOVES);
    const places = all.map((move) => deskPlaceOf(move.next));
    expect(places.every((place, index) => index === 0 || compareOnDesk(places[index - 1]!, place) <= 0)).toBe(true);
  });

  it('lists moves by when they were begun as well, each once', async () => {
    const all = await pages('state=all&limit=100');
    expect(all.map((move) => move.createdAt)).toEqual(Array.from({ length: MOVES }, (_, index) => 1e9 + MOVES - 1 - index));
    expect((await pages('state=open&text=client-77.')).map((move) => move.domain)).toEqual(['client-77.example']);
  });
});
