import { Knex } from 'knex';

/** Passwords that have to be changed, second factors, and sessions that people can tell apart and that end when nobody is there. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('people', (table) => {
    table.boolean('must_change').notNullable().defaultTo(false);
    table.boolean('demanded').notNullable().defaultTo(false);
    // Sealed; not yet confirmed while `factor_since` is null.
    table.binary('factor_secret');
    table.double('factor_since');
    // A code counts once (RFC 6238 §5.2): the time step of the last one.
    table.bigInteger('factor_step');
    table.double('seen_at');
  });
  await knex.schema.createTable('recovery_codes', (table) => {
    table.uuid('person_id').notNullable().references('people.id').onDelete('cascade');
    table.text('digest').notNullable();
    table.primary(['person_id', 'digest']);
  });
  // Nobody knows when those that there are were begun: everybody signs in again.
  await knex('sessions').delete();
  await knex.schema.alterTable('sessions', (table) => {
    table.uuid('id').notNullable().unique();
    table.double('begun_at').notNullable();
    table.double('seen_at').notNullable();
    table.text('address').notNullable();
    table.text('agent').notNullable();
  });
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('sessions', (table) => table.dropColumns('id', 'begun_at', 'seen_at', 'address', 'agent'));
  await knex.schema.dropTable('recovery_codes');
  await knex.schema.alterTable('people', (table) => table.dropColumns('must_change', 'demanded', 'factor_secret', 'factor_since', 'factor_step', 'seen_at'));
}
