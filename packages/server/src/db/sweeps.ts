import { Knex } from 'knex';

/** Lists of domains that are surveyed one after the other. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('sweeps', (table) => {
    table.uuid('id').primary();
    table.text('name').notNullable();
    table.double('created_at').notNullable();
    table.uuid('created_by').references('people.id');
    table.text('state').notNullable().checkIn(['running', 'paused', 'cancelled', 'done']).index();
  });
  await knex.schema.createTable('sweep_domains', (table) => {
    table.uuid('sweep_id').notNullable().references('sweeps.id');
    table.integer('position').notNullable();
    table.text('domain').notNullable();
    table.text('state').notNullable().checkIn(['waiting', 'done', 'failed', 'cancelled']);
    table.uuid('survey_id').references('surveys.id');
    table.double('done_at');
    table.text('problem');
    table.jsonb('gist');
    table.primary(['sweep_id', 'position']);
    table.unique(['sweep_id', 'domain']);
    table.index(['sweep_id', 'state', 'position']);
  });
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.dropTable('sweep_domains');
  await knex.schema.dropTable('sweeps');
}
