import { spawnSync } from 'node:child_process';
import { existsSync, renameSync, rmSync } from 'node:fs';
import { resolve } from 'node:path';
import { awaitKey, dataFolder, keyFile, ownCluster, withOwnDatabase } from './ownPlace';
import { postgresTool, runningPostgres } from './postgres';
import { keyIn, keyMark } from './secretKey';

/**
 * The `backup` command: everything but the key into one file, while the server runs or not. What it has is of one moment. Gives the exit
 * code; the file is there whole or not at all.
 */
export async function backup(file: string): Promise<number> {
  const target = resolve(file);
  if (existsSync(target)) return failed(`${file} is there already. It was left as it is: name another file.`);
  return withDatabase(async (url) => {
    const isNamed = nameKey(url);
    const part = `${target}.part`;
    const done = tool('pg_dump', url, ['--format=custom', '--file', part]);
    if (done !== undefined) {
      rmSync(part, { force: true });
      return failed(done);
    }
    renameSync(part, target);
    console.log(`${file} holds everything but the key${isNamed ? ', which it names' : ''}.`);
    console.log(`Keys of hosts and second factors in it open only with the key ${mark()}: keep a copy of that apart from it.`);
    return 0;
  });
}

/**
 * The `restore` command: what a backup holds, into an installation that has nothing yet. Gives the exit code; where it fails, the
 * installation has nothing still.
 */
export async function restore(file: string): Promise<number> {
  const source = resolve(file);
  if (!existsSync(source)) return failed(`There is no file ${file}.`);
  if (process.env['WANDERON_DATABASE'] === undefined && runningPostgres(ownCluster(dataFolder())) !== undefined)
    return failed(`The server of ${dataFolder()} runs. Stop it first.`);
  return withDatabase((url) => {
    const held = asked(url, `select count(*) from information_schema.tables where table_schema = 'public'`);
    if (held !== '0') return failed('There is something in this database already. Nothing was changed: restore into an installation that has nothing yet.');
    const done = tool('pg_restore', url, ['--exit-on-error', '--single-transaction', '--no-owner', source]);
    if (done !== undefined) return failed(`${done}\nNothing was changed.`);
    console.log(`Everything that ${file} holds is there.`);
    const named = namedKey(url);
    if (named !== undefined) console.log(`Secrets in it open with the key ${named}.`);
    if (process.env['WANDERON_DATABASE'] === undefined) awaitKey(dataFolder());
    console.log(
      process.env['WANDERON_SECRET_KEY'] === undefined
        ? `Now put the key of the old installation into ${keyFile(dataFolder())} before the first start.`
        : `The key that is set is ${mark()}: it has to be the one of the old installation.`,
    );
    return 0;
  });
}

/** By what the key is named in a database: a remark on the table whose secrets are sealed with it, which goes with every copy. */
const REMARK = 'sealed with the key ';

/** Names the key in the database; false where whoever connects may not, or there is no key to name. */
function nameKey(url: string): boolean {
  const key = keyAtHand();
  if (key === undefined) return false;
  const query = `comment on table secrets is '${REMARK}${keyMark(key)}'`;
  return spawnSync(postgresTool('psql'), ['-qc', query], { env: { ...process.env, ...access(new URL(url)) }, encoding: 'utf8' }).status === 0;
}

/** The mark of the key with which a restored database was sealed; undefined where it does not say. */
function namedKey(url: string): string | undefined {
  const remark = asked(url, `select coalesce(obj_description(to_regclass('secrets'), 'pg_class'), '')`);
  return remark.startsWith(REMARK) ? remark.slice(REMARK.length) : undefined;
}

function keyAtHand(): string | undefined {
  return process.env['WANDERON_SECRET_KEY']?.trim() ?? keyIn(keyFile(dataFolder()));
}

function failed(words: string): number {
  console.error(words.trim());
  return 1;
}

/** The database that is named, as its owner, or the one of the data folder. */
function withDatabase(work: (url: string) => number | Promise<number>): Promise<number> {
  const named = process.env['WANDERON_OWNER_DATABASE'] ?? process.env['WANDERON_DATABASE'];
  return named === undefined ? withOwnDatabase(work) : Promise.resolve(work(named));
}

/** The key that secrets are sealed with, told by its mark: it is never shown. */
function mark(): string {
  const key = keyAtHand();
  if (key === undefined) return 'of the server';
  return process.env['WANDERON_SECRET_KEY'] === undefined ? `${keyMark(key)} (${keyFile(dataFolder())})` : keyMark(key);
}

/** Undefined where it worked; else what it said. The password stands in no list of processes. */
function tool(name: 'pg_dump' | 'pg_restore', url: string, args: readonly string[]): string | undefined {
  const database = new URL(url);
  const all = name === 'pg_restore' ? ['--dbname', decodeURIComponent(database.pathname.slice(1)), ...args] : args;
  const done = spawnSync(postgresTool(name), all, { env: { ...process.env, ...access(database) }, encoding: 'utf8' });
  return done.status === 0 ? undefined : (done.error?.message ?? done.stderr);
}

function asked(url: string, query: string): string {
  const done = spawnSync(postgresTool('psql'), ['-tAc', query], { env: { ...process.env, ...access(new URL(url)) }, encoding: 'utf8' });
  if (done.status !== 0) throw new Error(done.stderr);
  return done.stdout.trim();
}

function access(database: URL): NodeJS.ProcessEnv {
  return {
    PGHOST: database.hostname,
    PGPORT: database.port === '' ? '5432' : database.port,
    PGUSER: decodeURIComponent(database.username),
    PGPASSWORD: decodeURIComponent(database.password),
    PGDATABASE: decodeURIComponent(database.pathname.slice(1)),
  };
}
