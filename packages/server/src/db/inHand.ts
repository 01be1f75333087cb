import { Knex } from 'knex';

/** What people have in hand of a zone, each as it was given; the latest of a leg counts. It stood among the facts of the leg before. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('in_hand', (table) => {
    table.bigIncrements('id').primary();
    table.uuid('leg_id').notNullable().references('legs.id').index();
    table.jsonb('names').notNullable();
    table.jsonb('sets').notNullable();
    table.bigInteger('serial');
  });
  await knex.raw(
    `insert into in_hand (leg_id, names, sets, serial)
     select id, coalesce(facts->'inHand'->'names', '[]'), coalesce(facts->'inHand'->'sets', '[]'), (facts->'inHand'->>'serial')::bigint from legs where facts->'inHand' is not null`,
  );
  await knex.raw(`update legs set facts = facts - 'inHand'`);
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.dropTable('in_hand');
}
