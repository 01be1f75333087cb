import { Knex } from 'knex';

/** Signs of names that a survey could not see. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('surveys', (table) => table.jsonb('hints').notNullable().defaultTo('[]'));
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('surveys', (table) => table.dropColumn('hints'));
}
