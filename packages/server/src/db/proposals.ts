import { Knex } from 'knex';
import { createRulings } from './foundation';

/**
 * What is proposed for a leg is written and read as a whole: one row a leg, its rows as one JSON text. Of 60,000 rows the database took four
 * seconds to write and check each apart. `planned` is 'found' where it is what was found.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('proposals', (table) => {
    table.uuid('leg_id').primary().references('legs.id');
    // Another one each time, so that whoever holds the rows knows whether they are those.
    table.uuid('id').notNullable();
    table.json('rows').notNullable();
  });
  await knex.raw(
    `insert into proposals (leg_id, id, rows)
     select leg_id, gen_random_uuid(), json_agg(json_build_object(
       'id', id, 'owner', owner, 'type', type, 'ruling', ruling, 'reason', reason, 'found', found,
       'planned', case when planned = found then to_jsonb('found'::text) else planned end) order by position)
     from rulings group by leg_id`,
  );
  await knex.schema.dropTable('rulings');
}

export async function down(knex: Knex): Promise<void> {
  await createRulings(knex);
  await knex.raw(
    `insert into rulings (id, leg_id, position, owner, type, ruling, reason, found, planned)
     select (row->>'id')::uuid, leg_id, place, row->>'owner', row->>'type', row->>'ruling', row->>'reason', nullif(row->'found', 'null'),
       nullif(case when row->>'planned' = 'found' then row->'found' else row->'planned' end, 'null')
     from proposals cross join lateral jsonb_array_elements(rows::jsonb) with ordinality as all_rows(row, place)`,
  );
  await knex.schema.dropTable('proposals');
}
