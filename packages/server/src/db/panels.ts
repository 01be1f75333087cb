import { Knex } from 'knex';

/** Of a host, where its panel is and where things are done there; of a link, which of the sheets of a leg it shows. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable(
    'hosts',
    (table) =>
      void table
        .jsonb('panel')
        .notNullable()
        .defaultTo(JSON.stringify({ login: '', where: [] })),
  );
  await knex.schema.alterTable(
    'sheet_links',
    (table) => void table.text('sheet').notNullable().defaultTo('records').checkIn(['records', 'lower', 'raise', 'registrar']),
  );
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('sheet_links', (table) => void table.dropColumn('sheet'));
  await knex.schema.alterTable('hosts', (table) => void table.dropColumn('panel'));
}
