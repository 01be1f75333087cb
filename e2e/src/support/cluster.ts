import { randomUUID } from 'node:crypto';
import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Client } from 'pg';
import { clusterFolder, startPostgres } from '../../../command/src/postgres';
import { migrateAs } from '../../../packages/server/src/db/database';
import { letRun } from '../../../packages/server/src/db/roles';

/** Where the address of the cluster is told to the workers. */
const ADDRESS = 'WANDERON_TEST_CLUSTER';
/** The same for the role under which servers run. */
const RUNNER = 'WANDERON_TEST_RUNNER';
/** A database of its own with the schema in it, which every test's database is a copy of. */
const TEMPLATE = 'wanderon';

/** One PostgreSQL cluster for all tests of a run; jest calls this once a project. Gives what ends it. */
export async function openCluster(): Promise<() => void> {
  const folder = mkdtempSync(join(tmpdir(), 'wanderon-cluster-'));
  chmodSync(folder, 0o711); // user postgres has to get in where root runs the tests
  const place = clusterFolder(join(folder, 'postgres'), `test-${process.pid}-${Date.now()}`);
  const postgres = await startPostgres(place);
  const owner = await migrateAs(postgres.url);
  await letRun(owner, new URL(postgres.runner).username);
  await owner.destroy();
  process.env[ADDRESS] = postgres.url;
  process.env[RUNNER] = postgres.runner;
  return () => {
    postgres.stop();
    for (const made of [folder, place]) rmSync(made, { recursive: true, force: true });
  };
}

/** A database of the run's cluster, of a test's own. */
export interface TestDatabase {
  /** As the role that owns it. */
  readonly url: string;
  /** As the role under which servers run. */
  readonly runner: string;
  readonly name: string;
  drop(): Promise<void>;
}

/** `empty`: without the schema, as a first start finds it. */
export async function makeDatabase(empty = false): Promise<TestDatabase> {
  const name = `test_${randomUUID().replaceAll('-', '')}`;
  await onCluster(`create database ${name} template ${empty ? 'template0' : TEMPLATE}`);
  const [url, runner] = [new URL(clusterAddress()), new URL(process.env[RUNNER]!)];
  for (const one of [url, runner]) one.pathname = `/${name}`;
  // What a database grants is not copied with its template.
  await onCluster(`grant create on database ${name} to ${runner.username}`);
  return { url: url.toString(), runner: runner.toString(), name, drop: () => onCluster(`drop database ${name} with (force)`) };
}

/** The address of a database of the cluster that no test works in. */
export function clusterAddress(): string {
  const url = new URL(process.env[ADDRESS]!);
  url.pathname = '/postgres';
  return url.toString();
}

async function onCluster(statement: string): Promise<void> {
  const client = new Client({ connectionString: clusterAddress() });
  await client.connect();
  try {
    await client.query(statement);
  } finally {
    await client.end();
  }
}
