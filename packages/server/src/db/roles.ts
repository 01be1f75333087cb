import { Database } from './database';

/** Evidence: rows are read and added, whoever asks. */
const ADDED_ONLY = ['events', 'surveys', 'survey_sets', 'decisions', 'trail_seals'];
/** Rows go on, which a trigger sees to, and are never taken out. */
const FORWARD_ONLY = ['observations'];
/** Which migrations were made is only read. */
const READ_ONLY = ['knex_migrations', 'knex_migrations_lock'];

/**
 * Gives the role that a server runs under what it needs of the tables, and no more: another role owns them. `owner`: a connection of that
 * one. Safe to call again; tables that came with a migration since are given too. Throws what the database says, as where there is no
 * such role.
 */
export async function letRun(owner: Database, runner: string): Promise<void> {
  await owner.transaction(async (transaction) => {
    const database = (await transaction.raw<{ rows: { name: string }[] }>('select current_database() as name')).rows[0]!.name;
    // The queue's tables are no evidence, and its package makes them itself: they belong to whoever runs it. What waits there is asked for again.
    const { rows } = await transaction.raw<{ rows: { owner: string }[] }>(`select nspowner::regrole::text as owner from pg_namespace where nspname = 'jobs'`);
    if (rows[0] && rows[0].owner.replace(/^"(.*)"$/, '$1') !== runner) await transaction.raw('drop schema jobs cascade');
    await transaction.raw('grant connect, create on database ?? to ??', [database, runner]);
    await transaction.raw('revoke create on schema public from public');
    await transaction.raw('grant usage on schema public to ??', [runner]);
    await transaction.raw('grant select, insert, update, delete on all tables in schema public to ??', [runner]);
    await transaction.raw('grant usage, select on all sequences in schema public to ??', [runner]);
    for (const table of ADDED_ONLY) await transaction.raw('revoke update, delete on ?? from ??', [table, runner]);
    for (const table of FORWARD_ONLY) await transaction.raw('revoke delete on ?? from ??', [table, runner]);
    for (const table of READ_ONLY) await transaction.raw('revoke insert, update, delete on ?? from ??', [table, runner]);
  });
}
