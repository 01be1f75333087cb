import { Knex } from 'knex';

/** How the website answers where the plan leads; equal findings one after the other are one row that is drawn out. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('website_looks', (table) => {
    table.bigIncrements('id').primary();
    table.uuid('leg_id').notNullable().references('legs.id').index();
    // What it was held against.
    table.uuid('survey_id').notNullable().references('surveys.id');
    table.double('first_seen').notNullable();
    table.double('last_seen').notNullable();
    table.jsonb('looks').notNullable();
    table.jsonb('changes').notNullable();
  });
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.dropTable('website_looks');
}
