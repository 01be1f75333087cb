import { Knex } from 'knex';

/** What has to be done at a web host, whether a DNS host holds a zone beforehand, how a registrar's page wants nameservers, and the web host as a leg was planned with it. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('hosts', (table) => {
    table.jsonb('tasks').notNullable().defaultTo('[]');
    table.jsonb('form');
    table.boolean('holds_early').notNullable().defaultTo(true);
  });
  await knex.schema.alterTable('legs', (table) => void table.jsonb('web'));
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('legs', (table) => void table.dropColumn('web'));
  await knex.schema.alterTable('hosts', (table) => table.dropColumns('tasks', 'form', 'holds_early'));
}
