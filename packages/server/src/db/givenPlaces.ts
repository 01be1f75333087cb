import { Knex } from 'knex';

/**
 * What a new place gave is kept with its leg. Where nobody described that place it is a host of its move alone, with a name that others may
 * have too, until somebody keeps it as a host.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('legs', (table) => void table.jsonb('given'));
  await knex.schema.alterTable('hosts', (table) => {
    table.uuid('of_move').references('moves.id').index();
    table.dropUnique(['name', 'role']);
  });
  await knex.raw('create unique index hosts_name_role_unique on hosts (name, role) where of_move is null');
}

export async function down(knex: Knex): Promise<void> {
  // Names of places may stand several times: each gets its id behind it.
  await knex.raw(`update hosts set name = name || ' ' || id where of_move is not null`);
  await knex.raw('drop index hosts_name_role_unique');
  await knex.schema.alterTable('hosts', (table) => {
    table.dropColumn('of_move');
    table.unique(['name', 'role']);
  });
  await knex.schema.alterTable('legs', (table) => void table.dropColumn('given'));
}
