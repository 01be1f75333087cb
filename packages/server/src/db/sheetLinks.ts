import { Knex } from 'knex';

/** Links by which somebody without an account sees one sheet; of the secret in them only the digest is kept. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('sheet_links', (table) => {
    table.uuid('id').primary();
    table.uuid('leg_id').notNullable().references('legs.id').index();
    table.text('digest').notNullable().unique();
    table.uuid('made_by').notNullable().references('people.id');
    table.double('made_at').notNullable();
    table.double('ends_at').notNullable();
    table.double('withdrawn_at');
  });
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.dropTable('sheet_links');
}
