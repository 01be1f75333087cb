import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { dataFolder, keyFile, openOwnPlace, withOwnDatabase } from './ownPlace';
import { ROOT } from './processes';
import { keyIn } from './secretKey';

/**
 * The `start` command: the server for real use, configured by the environment (docs/operations.md). Where no database is named it has one
 * of its own in the data folder, with a key of its own, at an address of this machine alone.
 */
export async function start(): Promise<number> {
  if (process.env['WANDERON_DATABASE'] !== undefined) return ofServer('server');
  console.error(`Starting with a database of its own in ${dataFolder()} ...`);
  const place = await openOwnPlace();
  try {
    console.error(`Wanderon answers at ${place.env['WANDERON_PUBLIC_ADDRESS']}. Ctrl-C stops it; what it knows stays.`);
    return await ofServer('server', place.env);
  } finally {
    place.stop();
  }
}

/** The `migrate` command: the schema is brought up to date by the role that owns it, for the role under which servers run. */
export function migrate(): Promise<number> {
  return ofServer('migrate');
}

/** The `keys renew` command: every secret is sealed under the new key, while servers run. */
export function renewKeys(): Promise<number> {
  return ofOwn('renewKeys');
}

/** The `trail check` command: whether every event is as it was written. */
export function checkTrail(): Promise<number> {
  return ofOwn('checkTrail');
}

/** With the database that is named, or with the one of the data folder. */
function ofOwn(script: string): Promise<number> {
  if (process.env['WANDERON_DATABASE'] !== undefined) return ofServer(script);
  return withOwnDatabase((url) =>
    ofServer(script, {
      WANDERON_DATABASE: url,
      WANDERON_SECRET_KEY: process.env['WANDERON_SECRET_KEY'] ?? keyIn(keyFile(dataFolder())),
      WANDERON_PUBLIC_ADDRESS: 'http://127.0.0.1',
    }),
  );
}

function ofServer(script: string, more: NodeJS.ProcessEnv = {}): Promise<number> {
  return new Promise((resolve) => {
    const child = spawn(process.execPath, [join(ROOT, `packages/server/dist/${script}.js`)], { stdio: 'inherit', env: { ...process.env, ...more } });
    for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => child.kill(signal));
    child.once('exit', (code) => resolve(code ?? 1));
  });
}
