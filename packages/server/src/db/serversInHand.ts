import { Knex } from 'knex';

/** Servers that a person named as having the zone, beside what they pasted. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('in_hand', (table) => void table.jsonb('servers').notNullable().defaultTo('[]'));
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('in_hand', (table) => void table.dropColumn('servers'));
}
