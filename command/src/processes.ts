import { ChildProcess, spawn } from 'node:child_process';
import { join } from 'node:path';
import { createInterface } from 'node:readline';

export const ROOT = join(__dirname, '../..');

export interface Running {
  readonly child: ChildProcess;
  /** What it printed once it was ready, matched. */
  readonly ready: RegExpExecArray;
  stop(signal?: NodeJS.Signals): Promise<void>;
}

/** The server as one file, as `startNode` takes it. */
export const SERVER = 'packages/server/dist/server.js';

/** Flags for Node itself, where whoever starts our programs knows more of them: how long they live, say. */
const FLAGS = process.env['WANDERON_NODE_FLAGS']?.split(' ') ?? [];

/**
 * Starts a Node program of ours, the server with what was compiled of it before, and waits for a line that matches. Throws an Error with its
 * last lines if it ends before.
 */
export function startNode(
  script: string,
  args: readonly string[],
  env: NodeJS.ProcessEnv,
  ready: RegExp,
  onLine: (line: string) => void = () => undefined,
): Promise<Running> {
  return new Promise((resolve, reject) => {
    const program = [...FLAGS, ...(script === SERVER ? [join(ROOT, 'command/dist/keptCode.js')] : []), join(ROOT, script)];
    const child = spawn(process.execPath, [...program, ...args], { env: { ...process.env, ...env }, stdio: ['pipe', 'pipe', 'pipe'] });
    const ended = new Promise<void>((done) => child.once('exit', () => done()));
    const last: string[] = [];
    let found = false;
    const take = (line: string): void => {
      last.push(line);
      if (last.length > 20) last.shift();
      const match = ready.exec(line);
      if (match && !found) {
        found = true;
        resolve({
          child,
          ready: match,
          stop: async (signal = 'SIGTERM') => {
            if (child.exitCode === null && child.signalCode === null) child.kill(signal);
            await ended;
          },
        });
      } else onLine(line);
    };
    createInterface({ input: child.stdout }).on('line', take);
    createInterface({ input: child.stderr }).on('line', take);
    child.once('exit', (code) => found || reject(new Error(`${script} ended with ${code}:\n${last.join('\n')}`)));
  });
}
