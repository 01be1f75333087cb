import { Knex } from 'knex';

/**
 * Each event is marked by whoever writes it, so that nobody else's passes for one, and sealed once, in an order of its own, over the seal
 * before it. Those that there are already have no mark: they are the first to be sealed.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('events', (table) => {
    table.text('nonce').unique();
    table.text('mark');
  });
  await knex.raw('alter table events add constraint events_marked check (nonce is not null and mark is not null) not valid');
  await knex.schema.createTable('trail_seals', (table) => {
    table.bigIncrements('n');
    table.bigInteger('event_id').notNullable().unique();
    table.text('key_number').notNullable();
    table.binary('seal').notNullable();
  });
  await knex.raw('create trigger trail_seals_append_only before update or delete or truncate on trail_seals execute function refuse_change()');
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.dropTable('trail_seals');
  await knex.schema.alterTable('events', (table) => table.dropColumns('nonce', 'mark'));
}
