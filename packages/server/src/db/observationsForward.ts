import { Knex } from 'knex';

/** An observation is evidence: it is drawn out by later looks that see the same, and is otherwise as it was written. */
export async function up(knex: Knex): Promise<void> {
  // By the columns that a statement sets, so that values of megabytes are not compared at each look.
  await knex.raw(`
    create trigger observations_kept
      before delete or truncate or update of id, leg_id, kind, subject, item, server, value, digest, problem, refused, first_seen
      on observations execute function refuse_change();
    create function refuse_backwards() returns trigger language plpgsql as $$
    begin
      if new.last_seen < old.last_seen or new.count < old.count then raise exception '% is append-only: last seen and count go forward', tg_table_name; end if;
      return new;
    end $$;
    create trigger observations_forward before update on observations for each row execute function refuse_backwards();
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    drop trigger observations_kept on observations;
    drop trigger observations_forward on observations;
    drop function refuse_backwards();
  `);
}
