import { Knex } from 'knex';

/** Each record set carries every sighting of it; a survey also says what it noticed, and how the website answers. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('surveys', (table) => {
    table.jsonb('registration');
    table.jsonb('findings').notNullable().defaultTo('[]');
    table.jsonb('ends').notNullable().defaultTo('[]');
    table.jsonb('pages').notNullable().defaultTo('[]');
    table.integer('asked').notNullable().defaultTo(0);
    table.index(['domain_id', 'taken_at']);
  });
  await knex.schema.alterTable('hosts', (table) => table.jsonb('fronts').notNullable().defaultTo('[]'));
  // What was one sentence becomes the reason of one sighting.
  await knex.raw(`
    alter table survey_sets alter column evidence type jsonb using jsonb_build_array(jsonb_build_object(
      'kind', case when evidence like 'transfer%' then 'transfer' when evidence like 'named by%' then 'walk' else 'answer' end,
      'server', null, 'address', null, 'serial', null, 'because', evidence, 'ttl', ttl, 'data', null, 'absent', false))
  `);
  await knex.schema.alterTable('survey_sets', (table) => {
    table.text('varying');
    table.text('fronted');
    table.jsonb('stored');
  });
}

export async function down(): Promise<void> {
  throw new Error('What a survey has seen is not thrown away.');
}
