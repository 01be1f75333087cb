import { Knex } from 'knex';

/** Whether one server answers otherwise from one question to the next; empty in surveys from before it was told apart. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('survey_sets', (table) => {
    table.boolean('restless');
  });
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('survey_sets', (table) => {
    table.dropColumn('restless');
  });
}
