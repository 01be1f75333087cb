import { Knex } from 'knex';

/** What colleagues are to know of a move, in somebody's words; who changed it, and what stood there before, is on record. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('moves', (table) => void table.text('note').notNullable().defaultTo(''));
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('moves', (table) => void table.dropColumn('note'));
}
