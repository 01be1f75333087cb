import { Knex } from 'knex';

/** A domain that is being surveyed has the number of the process that does it (`claims.ts`), instead of a lock for all that time. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('sweep_domains', (table) => void table.integer('in_hand'));
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('sweep_domains', (table) => void table.dropColumn('in_hand'));
}
