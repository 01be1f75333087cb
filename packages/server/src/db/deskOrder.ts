import { Knex } from 'knex';

/** Where each open move stands on the Desk (core/src/move/desk.ts), so that its first page is read by an index. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('moves', (table) => {
    table.specificType('desk_group', 'smallint').notNullable().defaultTo(2);
    table.double('desk_due').notNullable().defaultTo(0);
    table.index(['state', 'desk_group', 'desk_due', 'id']);
  });
  await knex.raw(`
    update moves set
      desk_group = case when summary->'next' = 'null'::jsonb then 3 when (summary->'next'->>'failed')::boolean then 0 when summary->'next'->>'who' = 'you' then 1 else 2 end,
      desk_due = coalesce((summary->'next'->>'dueAt')::float8, 0)
     where summary is not null`);
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('moves', (table) => {
    table.dropColumns('desk_group', 'desk_due');
  });
}
