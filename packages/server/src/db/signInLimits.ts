import { Knex } from 'knex';

/** Sign-ins that are counted, by what they are counted for, and addresses from which people have signed in. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.dropTable('sign_in_failures');
  await knex.schema.createTable('sign_in_limits', (table) => {
    table.string('key', 255).primary();
    table.integer('points').notNullable().defaultTo(0);
    table.bigInteger('expire');
  });
  await knex.schema.createTable('sign_in_addresses', (table) => {
    table.uuid('person_id').notNullable().references('people.id').onDelete('cascade');
    table.text('address').notNullable();
    table.double('at').notNullable();
    table.primary(['person_id', 'address']);
  });
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.dropTable('sign_in_addresses');
  await knex.schema.dropTable('sign_in_limits');
  await knex.schema.createTable('sign_in_failures', (table) => {
    table.text('subject').notNullable();
    table.double('at').notNullable();
    table.index(['subject', 'at']);
  });
}
