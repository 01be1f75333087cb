import { Knex } from 'knex';

/** A leg may lead into another account behind the same nameservers. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('legs', (table) => void table.boolean('account').notNullable().defaultTo(false));
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('legs', (table) => void table.dropColumn('account'));
}
