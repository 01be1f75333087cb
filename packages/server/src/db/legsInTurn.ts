import { Knex } from 'knex';

/** A move in two legs knows its second one from the start; a leg that sets another back knows which; a host, how it is typed into. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('legs', (table) => {
    table.jsonb('next');
    table.uuid('back_of').references('legs.id');
  });
  // How its panel wants names and values typed.
  await knex.schema.alterTable('hosts', (table) => void table.jsonb('entry'));
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('hosts', (table) => void table.dropColumn('entry'));
  await knex.schema.alterTable('legs', (table) => table.dropColumns('next', 'back_of'));
}
