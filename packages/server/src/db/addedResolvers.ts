import { Knex } from 'knex';

/** Resolvers that people added to those of the configuration; each is asked as it is said here. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('resolvers', (table) => {
    table.uuid('id').primary();
    // What was seen at a resolver is kept by its name.
    table.text('name').notNullable().unique();
    table.text('address').notNullable();
    table.text('over').notNullable().checkIn(['udp', 'tcp', 'tls', 'https']);
    table.text('tls_name').notNullable().defaultTo('');
    table.text('path').notNullable().defaultTo('');
    table.text('stands').notNullable().defaultTo('');
    table.text('note').notNullable().defaultTo('');
    table.integer('position').notNullable();
  });
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.dropTable('resolvers');
}
