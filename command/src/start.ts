import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { ROOT } from './processes';

/** The `start` command: the server for real use, configured by the environment (docs/operations.md). */
export function start(): Promise<number> {
  return ofServer('server');
}

/** The `migrate` command: the schema is brought up to date by the role that owns it, for the role under which servers run. */
export function migrate(): Promise<number> {
  return ofServer('migrate');
}

/** The `keys renew` command: every secret is sealed under the new key, while servers run. */
export function renewKeys(): Promise<number> {
  return ofServer('renewKeys');
}

/** The `trail check` command: whether every event is as it was written. */
export function checkTrail(): Promise<number> {
  return ofServer('checkTrail');
}

function ofServer(script: string): Promise<number> {
  return new Promise((resolve) => {
    const child = spawn(process.execPath, [join(ROOT, `packages/server/dist/${script}.js`)], { stdio: 'inherit' });
    for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => child.kill(signal));
    child.once('exit', (code) => resolve(code ?? 1));
  });
}
