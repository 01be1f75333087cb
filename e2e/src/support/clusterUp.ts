import { spawnSync } from 'node:child_process';
import { readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from '../../../command/src/processes';
import { openCluster } from './cluster';

/** What the server's one file is made of. */
const PARTS = ['core', 'contract', 'net', 'server'];

/** Before the first test of a project. */
export default async function up(): Promise<void> {
  bundleServer();
  (globalThis as { closeCluster?: () => void }).closeCluster = await openCluster();
}

/** The server that is tested is the one that was compiled last. Throws where it cannot be made one file. */
function bundleServer(): void {
  const bundle = join(ROOT, 'packages/server/dist/server.js');
  const made = statSync(bundle, { throwIfNoEntry: false })?.mtimeMs ?? 0;
  const newer = (name: string): boolean => {
    const dist = join(ROOT, 'packages', name, 'dist');
    return readdirSync(dist, { recursive: true, encoding: 'utf8' }).some((file) => statSync(join(dist, file)).mtimeMs > made && !file.startsWith('server.js'));
  };
  if (!PARTS.some(newer)) return;
  const done = spawnSync(join(ROOT, 'node_modules/.bin/rolldown'), ['-c', '--logLevel', 'warn'], { cwd: join(ROOT, 'packages/server'), stdio: 'inherit' });
  if (done.status !== 0) throw new Error('the server could not be made one file');
}
