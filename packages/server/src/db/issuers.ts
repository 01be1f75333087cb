import { Knex } from 'knex';

/** By whom a web host has its certificates made, as CAA records name them. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('hosts', (table) => void table.jsonb('issuers').notNullable().defaultTo('[]'));
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('hosts', (table) => void table.dropColumn('issuers'));
}
