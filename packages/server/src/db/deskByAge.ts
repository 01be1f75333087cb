import { Knex } from 'knex';

const BEFORE = ['state', 'desk_group', 'desk_due', 'id'];
const BY_AGE = ['state', 'desk_group', 'desk_due', 'created_at', 'id'];

/** Of moves that are due alike the one that was begun first stands first on the Desk. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('moves', (table) => {
    table.dropIndex(BEFORE);
    table.index(BY_AGE);
  });
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('moves', (table) => {
    table.dropIndex(BY_AGE);
    table.index(BEFORE);
  });
}
