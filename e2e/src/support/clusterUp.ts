import { spawnSync } from 'node:child_process';
import { generateKeyPairSync } from 'node:crypto';
import { readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from '../../../command/src/processes';
import { openCluster } from './cluster';

/** Programs that are one file each, the first of those that are made together, where they are made, and the packages of which they are. */
const BUNDLES = [
  { file: 'packages/server/dist/server.js', from: 'packages/server', parts: ['packages/core', 'packages/contract', 'packages/net', 'packages/server'] },
  { file: 'command/dist/zoneTools.js', from: 'command', parts: ['packages/core', 'packages/contract', 'packages/net', 'command'] },
];
/** What is made of what was compiled, and what is kept beside it. */
const MADE = ['server.js', 'largeReader.js', 'zoneTools.js'];

/** Servers of tests live for a minute: what is compiled ten times later is mostly not compiled at all, and a sixth of their work is saved. */
const SHORT_LIVED = '--interrupt-budget=1200000';

/** All labs of a run have one key: it takes a third of a second to make. */
const LAB_KEY = { modulusLength: 2048, privateKeyEncoding: { type: 'pkcs1', format: 'pem' }, publicKeyEncoding: { type: 'spki', format: 'pem' } } as const;

/** Before the first test of a project. */
export default async function up(): Promise<void> {
  process.env['WANDERON_NODE_FLAGS'] = SHORT_LIVED;
  process.env['WANDERON_LAB_KEY'] ??= generateKeyPairSync('rsa', LAB_KEY).privateKey;
  for (const bundle of BUNDLES) makeAnew(bundle);
  (globalThis as { closeCluster?: () => void }).closeCluster = await openCluster();
}

/** What is tested is what was compiled last. Throws where it cannot be made one file. */
function makeAnew({ file, from, parts }: (typeof BUNDLES)[number]): void {
  const made = statSync(join(ROOT, file), { throwIfNoEntry: false })?.mtimeMs ?? 0;
  const newer = (part: string): boolean => {
    const dist = join(ROOT, part, 'dist');
    const files = readdirSync(dist, { recursive: true, encoding: 'utf8' }).filter((one) => !MADE.some((name) => one.startsWith(name)));
    return files.some((one) => (statSync(join(dist, one), { throwIfNoEntry: false })?.mtimeMs ?? 0) > made);
  };
  if (!parts.some(newer)) return;
  const done = spawnSync(join(ROOT, 'node_modules/.bin/rolldown'), ['-c', '--logLevel', 'warn'], { cwd: join(ROOT, from), stdio: 'inherit' });
  if (done.status !== 0) throw new Error(`${file} could not be made`);
}
