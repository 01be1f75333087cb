import { createHash, randomBytes } from 'node:crypto';
import { spawnSync } from 'node:child_process';
import { chmodSync, existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { homedir } from 'node:os';
import { join } from 'node:path';
import { Postgres, clusterFolder, freePort, runningPostgres, startPostgres } from './postgres';
import { ROOT } from './processes';
import { keyIn, secretKey } from './secretKey';

/** Where an installation keeps everything that is its own: database, key. `WANDERON_DATA`, or below the home of whoever starts it. */
export function dataFolder(): string {
  return process.env['WANDERON_DATA'] ?? join(process.env['XDG_DATA_HOME'] ?? join(homedir(), '.local', 'share'), 'wanderon');
}

/** The database cluster of a data folder. */
export function ownCluster(data: string): string {
  return clusterFolder(join(data, 'postgres'), createHash('sha256').update(data).digest('hex').slice(0, 12));
}

export const keyFile = (data: string): string => join(data, 'secret.key');

export interface OwnPlace {
  /** What the server is told, beside what is set already. */
  readonly env: NodeJS.ProcessEnv;
  readonly data: string;
  stop(): void;
}

/**
 * A database cluster, a key and an address of this machine alone, for a start without any variable; made where they are not there, and the
 * schema brought up to date. Throws an Error with what was said where the database cannot be started.
 */
export async function openOwnPlace(): Promise<OwnPlace> {
  const data = dataFolder();
  mkdirSync(data, { recursive: true });
  // User postgres has to get through where root runs it; nobody lists it.
  chmodSync(data, 0o711);
  const other = runningStart(data);
  if (other !== undefined) throw new Error(`Wanderon runs already with ${data} (process ${other}). Stop it first, or name another folder in WANDERON_DATA.`);
  if (existsSync(restoredFile(data)) && process.env['WANDERON_SECRET_KEY'] === undefined && keyIn(keyFile(data)) === undefined)
    throw new Error(`What stands in ${data} was restored, and its key is missing: put the key of the old installation into ${keyFile(data)} first.`);
  writeFileSync(startFile(data), String(process.pid));
  const postgres = await startPostgres(ownCluster(data), true);
  try {
    migrated(postgres);
    const port = await freePort(Number(process.env['WANDERON_PORT'] ?? 8080));
    return {
      data,
      env: {
        WANDERON_DATABASE: postgres.runner,
        WANDERON_SECRET_KEY: process.env['WANDERON_SECRET_KEY'] ?? secretKey(keyFile(data)),
        WANDERON_PUBLIC_ADDRESS: process.env['WANDERON_PUBLIC_ADDRESS'] ?? `http://127.0.0.1:${port}`,
        WANDERON_PORT: String(port),
        // Another one at each start; it does nothing once somebody has an account.
        ...(process.env['WANDERON_ADMIN_PASSWORD'] === undefined && { WANDERON_FIRST_LINK: randomBytes(24).toString('base64url') }),
      },
      stop: () => {
        postgres.stop();
        rmSync(startFile(data), { force: true });
      },
    };
  } catch (error) {
    postgres.stop();
    throw error;
  }
}

const startFile = (data: string): string => join(data, 'running');

/** The process that runs with a data folder; undefined where none does, whatever was left by one that was killed. */
function runningStart(data: string): number | undefined {
  if (!existsSync(startFile(data))) return undefined;
  const pid = Number(readFileSync(startFile(data), 'utf8'));
  const command = `/proc/${pid}/cmdline`;
  return pid !== process.pid && existsSync(command) && readFileSync(command, 'utf8').split('\0').includes('start') ? pid : undefined;
}

/** What one command does with the database of the data folder, as its owner: with the one that runs, or started for as long as it takes. */
export async function withOwnDatabase<T>(work: (url: string) => T | Promise<T>): Promise<T> {
  const cluster = ownCluster(dataFolder());
  const running = runningPostgres(cluster);
  if (running !== undefined) return work(running);
  const postgres = await startPostgres(cluster, true);
  try {
    return await work(postgres.url);
  } finally {
    postgres.stop();
  }
}

const restoredFile = (data: string): string => join(data, 'restored');

/** What was restored was sealed with a key from elsewhere: until it is there nothing starts, or another one would be made in its place. */
export function awaitKey(data: string): void {
  writeFileSync(restoredFile(data), '');
}

/** The schema belongs to one role, and the server runs under another. Throws an Error with what was said where that cannot be. */
export function migrated({ url, runner }: Postgres): void {
  const env = { ...process.env, WANDERON_OWNER_DATABASE: url, WANDERON_DATABASE: runner };
  const done = spawnSync(process.execPath, [join(ROOT, 'packages/server/dist/migrate.js')], { env, encoding: 'utf8' });
  if (done.status !== 0) throw new Error(done.stderr);
}
