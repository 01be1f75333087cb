import { spawnSync } from 'node:child_process';
import { readdirSync, statSync } from 'node:fs';
import { basename, join } from 'node:path';
import { ROOT } from '../../../command/src/processes';
import { openCluster } from './cluster';

/** Programs that are one file, where they are made, and the packages of which they are. */
const BUNDLES = [
  { file: 'packages/server/dist/server.js', from: 'packages/server', parts: ['packages/core', 'packages/contract', 'packages/net', 'packages/server'] },
  { file: 'command/dist/zoneTools.js', from: 'command', parts: ['packages/core', 'packages/contract', 'packages/net', 'command'] },
];

/** Before the first test of a project. */
export default async function up(): Promise<void> {
  for (const bundle of BUNDLES) makeAnew(bundle);
  (globalThis as { closeCluster?: () => void }).closeCluster = await openCluster();
}

/** What is tested is what was compiled last. Throws where it cannot be made one file. */
function makeAnew({ file, from, parts }: (typeof BUNDLES)[number]): void {
  const made = statSync(join(ROOT, file), { throwIfNoEntry: false })?.mtimeMs ?? 0;
  const newer = (part: string): boolean => {
    const dist = join(ROOT, part, 'dist');
    const files = readdirSync(dist, { recursive: true, encoding: 'utf8' }).filter((one) => !one.startsWith(basename(file)));
    return files.some((one) => (statSync(join(dist, one), { throwIfNoEntry: false })?.mtimeMs ?? 0) > made);
  };
  if (!parts.some(newer)) return;
  const done = spawnSync(join(ROOT, 'node_modules/.bin/rolldown'), ['-c', '--logLevel', 'warn'], { cwd: join(ROOT, from), stdio: 'inherit' });
  if (done.status !== 0) throw new Error(`${file} could not be made`);
}
