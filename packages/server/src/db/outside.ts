import { Knex } from 'knex';

/** What stood outside of a zone when it was surveyed, and decides what its records mean; null in surveys from before it was asked. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('surveys', (table) => void table.jsonb('outside'));
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('surveys', (table) => void table.dropColumn('outside'));
}
