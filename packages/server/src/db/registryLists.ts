import { Knex } from 'knex';

/** Lists that say which service to ask of a registry, as they were fetched last, and how the last try went. Instants are seconds since 1970. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('registry_lists', (table) => {
    table.text('address').primary();
    table.jsonb('body');
    table.double('fetched_at');
    table.double('tried_at').notNullable();
    table.text('problem');
  });
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.dropTable('registry_lists');
}
