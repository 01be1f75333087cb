import { spawn, spawnSync } from 'node:child_process';
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

/** Test files at a time: most of them wait for servers much of the time. With four, two cores stood idle for two fifths of it. */
const WORKERS = 5;

/**
 * The `test` command: every test, and types, lint and format meanwhile, as many tests wait; the last line counts them.
 * `test PATTERN` runs the matching tests only.
 */
export async function test(args: readonly string[]): Promise<number> {
  const bin = (name: string): string => join(ROOT, 'node_modules/.bin', name);
  let passed = 0;
  let failed = 0;
  const check = (title: string, command: string, parts: readonly string[], cwd = ROOT): void => {
    console.log(`== ${title}`);
    const done = spawnSync(command, parts, { cwd, stdio: 'inherit' });
    if (done.status === 0) passed += 1;
    else failed += 1;
  };
  check('packages as files', bin('rolldown'), ['-c', '--logLevel', 'warn'], join(ROOT, 'e2e'));
  console.log('== tests');
  const folder = mkdtempSync(join(tmpdir(), 'wanderon-test-'));
  const file = join(folder, 'report.json');
  const options = ['--json', `--outputFile=${file}`, '--passWithNoTests', '--forceExit', `--maxWorkers=${WORKERS}`];
  const jest = spawn(bin('jest'), [...options, ...args], { cwd: ROOT, stdio: ['ignore', 'ignore', 'inherit'] });
  const ended = new Promise((resolve) => jest.once('close', resolve));
  if (args.length === 0) {
    check('types', bin('tsc'), ['-b']);
    check('types of the tests', bin('tsc'), ['-p', 'e2e']);
    check('lint', bin('oxlint'), ['-c', 'oxlint.config.mjs']);
    check('format', bin('oxfmt'), ['--check', '.']);
  }
  await ended;
  try {
    const report = JSON.parse(readFileSync(file, 'utf8')) as JestReport;
    passed += report.numPassedTests;
    failed += report.numFailedTests + report.numRuntimeErrorTestSuites;
  } catch (error) {
    console.error(`the tests gave no report: ${(error as Error).message}`);
    failed += 1;
  }
  rmSync(folder, { recursive: true, force: true });
  console.log(`${passed} passed, ${failed} failed`);
  return failed === 0 && passed > 0 ? 0 : 1;
}
