import { Knex } from 'knex';

/** A move in two legs knows its second one from the start; a leg that sets another back knows which. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('legs', (table) => {
    table.jsonb('next');
    table.uuid('back_of').references('legs.id');
  });
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('legs', (table) => table.dropColumns('next', 'back_of'));
}
