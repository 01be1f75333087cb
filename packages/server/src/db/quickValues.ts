import { Knex } from 'knex';

/** Columns whose values are tens of kilobytes: what was decided of hundreds of rows at once, and what servers answered. */
const LARGE: readonly (readonly [table: string, column: string])[] = [
  ['decisions', 'value'],
  ['events', 'before'],
  ['events', 'after'],
  ['observations', 'value'],
];

/** They are compressed in a quicker way from now on, where PostgreSQL was built with it: writing two of 20 KB takes half the time. What there is already stays as it is. */
export async function up(knex: Knex): Promise<void> {
  for (const [table, column] of LARGE)
    await knex.raw(`do $$ begin alter table ${table} alter column ${column} set compression lz4; exception when feature_not_supported then null; end $$`);
}

export async function down(knex: Knex): Promise<void> {
  for (const [table, column] of LARGE) await knex.raw(`alter table ${table} alter column ${column} set compression default`);
}
