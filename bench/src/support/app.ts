import { randomBytes } from 'node:crypto';
import { chmodSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import knex, { Knex } from 'knex';
import { Api } from '../../../command/dist/api';
import { clusterFolder, freePort, startPostgres } from '../../../command/dist/postgres';
import { SERVER, startNode } from '../../../command/dist/processes';

/** With which the first administrator is made, and that is changed at once. */
const FIRST_PASSWORD = 'for the first sign-in alone';
export const PASSWORD = 'bench-and-nothing-else';

/** The server on a database of its own, with an administrator and nobody to ask. */
export interface BenchApp {
  readonly address: string;
  readonly port: number;
  /** Of the server's process. */
  readonly pid: number;
  /** One connection of the bench's own. */
  readonly database: Knex;
  /** What PostgreSQL writes. */
  readonly log: string;
  readonly api: Api;
  stop(): Promise<void>;
}

/** `more`: settings of the server beside the usual ones. */
export async function startApp(more: NodeJS.ProcessEnv = {}): Promise<BenchApp> {
  const folder = mkdtempSync(join(tmpdir(), 'wanderon-bench-'));
  chmodSync(folder, 0o711);
  const cluster = clusterFolder(join(folder, 'postgres'), `bench-${process.pid}`);
  const postgres = await startPostgres(cluster, true);
  const hints = join(folder, 'hints');
  writeFileSync(hints, '. 3600 NS root.bench.test.\nroot.bench.test. 3600 A 127.0.0.1\n');
  const port = await freePort();
  const address = `http://127.0.0.1:${port}`;
  const env = {
    WANDERON_DATABASE: postgres.url,
    WANDERON_SECRET_KEY: randomBytes(32).toString('base64'),
    WANDERON_PUBLIC_ADDRESS: address,
    WANDERON_PORT: String(port),
    WANDERON_ADMIN_PASSWORD: FIRST_PASSWORD,
    WANDERON_ROOT_HINTS: hints,
    WANDERON_LOG: 'fatal',
    ...more,
  };
  const server = await startNode(SERVER, [], env, /^listening (\d+)$/, () => undefined);
  const database = knex({ client: 'pg', connection: postgres.url, pool: { min: 1, max: 1 } });
  return {
    ...{ address, port, pid: server.child.pid!, database, log: join(cluster, 'log') },
    api: await new Api(address).firstSignIn('admin', FIRST_PASSWORD, PASSWORD),
    stop: async () => {
      await database.destroy();
      await server.stop('SIGKILL');
      postgres.stop();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
