import { Knex } from 'knex';

/** Titles of the pages with which a web host answers for domains that it does not know. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('hosts', (table) => void table.jsonb('holding').notNullable().defaultTo('[]'));
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('hosts', (table) => void table.dropColumn('holding'));
}
