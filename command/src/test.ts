import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ROOT } from './processes';

interface JestReport {
  numPassedTests: number;
  numFailedTests: number;
  numRuntimeErrorTestSuites: number;
  numPendingTests: number;
}

/** Test files at a time that drive servers: most of them wait for these much of the time, so that four have room even on two cores. */
const WORKERS = 4;
/** Test files at a time that only compute: they take what the others leave of the processors. */
const COMPUTING = 2;
/** What is done beside the tests that drive servers gives way to them, since these count seconds (the last argument of `nice`). */
const GIVES_WAY = ['nice', '-n', '15'] as const;

/**
 * The `test` command: every test, and types, lint and format. Tests that drive servers wait much of the time; all else is done meanwhile. The
 * last line counts what passed. `test PATTERN` runs the matching tests only.
 */
export async function test(args: readonly string[]): Promise<number> {
  const bin = (name: string): string => join(ROOT, 'node_modules/.bin', name);
  let passed = 0;
  let failed = 0;
  const check = async (title: string, command: readonly string[], cwd = ROOT): Promise<void> => {
    const { code, said } = await ended(command, cwd);
    console.log(`== ${title}\n${said}`.trimEnd());
    if (code === 0) passed += 1;
    else failed += 1;
  };
  await check('packages as files', [bin('rolldown'), '-c', '--logLevel', 'warn'], join(ROOT, 'e2e'));
  console.log('== tests');
  const folder = mkdtempSync(join(tmpdir(), 'wanderon-test-'));
  const jest = async (projects: readonly string[], workers: number, before: readonly string[] = []): Promise<void> => {
    const file = join(folder, `${projects.join('-')}.json`);
    const options = ['--json', `--outputFile=${file}`, '--passWithNoTests', '--forceExit', `--maxWorkers=${workers}`];
    const [command, ...parts] = [...before, bin('jest'), '--selectProjects', ...projects, ...options, ...args];
    const child = spawn(command!, parts, { cwd: ROOT, stdio: ['ignore', 'ignore', 'inherit'] });
    await new Promise((resolve) => child.once('close', resolve));
    try {
      const report = JSON.parse(readFileSync(file, 'utf8')) as JestReport;
      passed += report.numPassedTests;
      failed += report.numFailedTests + report.numRuntimeErrorTestSuites;
    } catch (error) {
      console.error(`the tests gave no report: ${(error as Error).message}`);
      failed += 1;
    }
  };
  const beside = async (): Promise<void> => {
    await jest(['unit'], COMPUTING, GIVES_WAY);
    if (args.length > 0) return;
    await check('types', [...GIVES_WAY, bin('tsc'), '-b']);
    await check('types of the tests', [...GIVES_WAY, bin('tsc'), '-p', 'e2e']);
    await check('lint', [...GIVES_WAY, bin('oxlint'), '-c', 'oxlint.config.mjs']);
    await check('format', [...GIVES_WAY, bin('oxfmt'), '--check', '.']);
  };
  await Promise.all([jest(['integration', 'browser'], WORKERS), beside()]);
  rmSync(folder, { recursive: true, force: true });
  console.log(`${passed} passed, ${failed} failed`);
  return failed === 0 && passed > 0 ? 0 : 1;
}

/** Runs a command to its end; gives how it ended and what it said. */
function ended([command, ...parts]: readonly string[], cwd: string): Promise<{ readonly code: number | null; readonly said: string }> {
  return new Promise((resolve, reject) => {
    const child = spawn(command!, parts, { cwd, stdio: ['ignore', 'pipe', 'pipe'] });
    let said = '';
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (part: Buffer) => (said += String(part)));
    child.once('error', reject);
    child.once('close', (code) => resolve({ code, said }));
  });
}
