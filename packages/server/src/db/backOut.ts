import { Knex } from 'knex';

/** Since when a leg sets another one back, and whether TTLs had been raised by then. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('legs', (table) => {
    table.double('back_since');
    table.boolean('back_raised').notNullable().defaultTo(false);
  });
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('legs', (table) => void table.dropColumns('back_since', 'back_raised'));
}
