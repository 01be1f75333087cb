import { Knex } from 'knex';

/** Where sites stand at a web host before their domains lead there. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('hosts', (table) => void table.string('provisional', 250).notNullable().defaultTo(''));
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('hosts', (table) => void table.dropColumn('provisional'));
}
