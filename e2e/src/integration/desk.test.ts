import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { MoveSummary } from '@wanderon/contract';
import { compareOnDesk, deskPlaceOf } from '@wanderon/core';
import knex, { Knex } from 'knex';
import { Api } from '../../../command/src/api';
import { ROOT } from '../../../command/src/processes';
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
    const scope = { kind: 'whole' };
    const made = Array.from({ length: MOVES }, (_, index) => {
      // The oldest move of all is the one that stopped; many are due at one moment.
      const next =
        index % 7 === 3
          ? null
          : {
              step: 'switch',
              text: 'x',
              chapter: 'switch',
              who: index % 3 === 0 ? 'you' : 'wanderon',
              dueAt: index % 5 === 0 ? null : 2e9 - (index % 40),
              failed: index === 0,
            };
      const summary = { from: null, to: null, client: null, state: 'open', scope, marks: [], drain: null, next };
      return { domain: randomUUID(), id: randomUUID(), name: `client-${index}.example`, created: 1e9 + index, summary };
    });
    await database.batchInsert(
      'domains',
      made.map(({ domain, name }) => ({ id: domain, name })),
      300,
    );
    await database.batchInsert(
      'moves',
      made.map(({ id, domain, name, created, summary }) => {
        const { group, due } = deskPlaceOf(summary.next as MoveSummary['next']);
        const whole = { id, leg: randomUUID(), domain: name, shown: name, createdAt: created, ...summary };
        return {
          id,
          domain_id: domain,
          scope: JSON.stringify(scope),
          state: 'open',
          created_at: created,
          wake_at: null,
          summary: JSON.stringify(whole),
          desk_group: group,
          desk_due: due,
        };
      }),
      300,
    );
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
