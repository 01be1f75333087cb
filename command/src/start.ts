import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { ROOT } from './processes';

/** The `start` command: the server for real use, configured by the environment (docs/operations.md). */
export function start(): Promise<number> {
  return new Promise((resolve) => {
    const child = spawn(process.execPath, [join(ROOT, 'packages/server/dist/main.js')], { stdio: 'inherit' });
    for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => child.kill(signal));
    child.once('exit', (code) => resolve(code ?? 1));
  });
}
