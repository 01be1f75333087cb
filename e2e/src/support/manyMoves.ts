import { randomUUID } from 'node:crypto';
import { MoveSummary } from '@wanderon/contract';
import { deskPlaceOf } from '@wanderon/core';
import { Knex } from 'knex';

/** Open moves with their summaries, of `client-0.example` and so on, begun in that order; the oldest one stopped. */
export async function insertMoves(database: Knex, count: number): Promise<void> {
  const scope = { kind: 'whole' };
  const made = Array.from({ length: count }, (_, index) => {
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
}
