import { Knex } from 'knex';

/** How a DNS host goes about its zones, what a web host wants of one that fronts names, how many ticks were made by a link to a sheet, and what was done for ways that were chosen before. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('hosts', (table) => {
    table.jsonb('habits').notNullable().defaultTo('{}');
    table.text('fronting').notNullable().defaultTo('either');
    table.boolean('forces_https').notNullable().defaultTo(false);
  });
  await knex.schema.alterTable('sheet_links', (table) => void table.integer('ticks').notNullable().defaultTo(0));
  await knex.schema.alterTable('legs', (table) => void table.jsonb('former'));
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('legs', (table) => void table.dropColumn('former'));
  await knex.schema.alterTable('sheet_links', (table) => void table.dropColumn('ticks'));
  await knex.schema.alterTable('hosts', (table) => table.dropColumns('habits', 'fronting', 'forces_https'));
}
