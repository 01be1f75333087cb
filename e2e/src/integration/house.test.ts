import { spawnSync } from 'node:child_process';
import { copyFileSync, mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { ROOT } from '../../../command/src/processes';

/** What no file of a package may hold, and what is said of it: a rule whose pattern meets no file would be silent. */
const REFUSED: readonly (readonly [file: string, line: string, says: string])[] = [
  ['packages/core/src/a.ts', "import { readFileSync } from 'node:fs';\nexport const a = readFileSync;", 'core does no I/O.'],
  ['packages/core/src/b.ts', 'export const b = async () => 1;', 'Core and contract wait for nothing.'],
  ['packages/core/src/c.ts', 'export const c = new Date();', 'Ask the injected clock.'],
  ['packages/server/src/d.ts', 'export const d = Date.now();', 'Ask the injected clock.'],
  ['packages/core/src/e.ts', 'export const e = process.env;', "Unexpected use of 'process'"],
  ['packages/server/src/f.ts', "import { Lab } from '@wanderon/lab';\nexport const f = Lab;", 'server must not import @wanderon/lab.'],
  ['packages/web/src/g.ts', "import { DnsClient } from '@wanderon/net';\nexport const g = DnsClient;", 'web must not import @wanderon/net.'],
  ['packages/net/src/h.ts', 'export const h = (x: any): number => x;', 'Unexpected `any`'],
  ['packages/lab/src/i.ts', 'export function i(): void {\n  try {\n    i();\n  } catch {}\n}', 'Unexpected empty block'],
];

describe('the linter', () => {
  it('refuses what breaks a rule of the house, and a promise that nobody waits for', () => {
    const folder = mkdtempSync(join(tmpdir(), 'wanderon-house-'));
    try {
      for (const name of ['oxlint.config.mjs', 'oxlint.house.mjs']) copyFileSync(join(ROOT, name), join(folder, name));
      // Where the linter finds what reads types for it.
      symlinkSync(join(ROOT, 'node_modules'), join(folder, 'node_modules'));
      const put = (file: string, text: string): void => {
        mkdirSync(dirname(join(folder, file)), { recursive: true });
        writeFileSync(join(folder, file), text);
      };
      for (const [file, text] of REFUSED) put(file, text);
      put('packages/server/src/waits.ts', 'async function soon(): Promise<void> {}\nsoon();\n');
      put('packages/server/src/fine.ts', 'export const fine = 1;\n');
      const done = spawnSync(join(ROOT, 'node_modules/.bin/oxlint'), ['-c', 'oxlint.config.mjs', '--format', 'json'], { cwd: folder, encoding: 'utf8' });
      const { diagnostics } = JSON.parse(done.stdout) as { diagnostics: { message: string; help?: string; filename: string }[] };
      const said = (file: string): string =>
        diagnostics.flatMap(({ filename, message, help = '' }) => (filename.endsWith(file) ? [`${message} ${help}`] : [])).join('\n');
      for (const [file, , says] of REFUSED) expect([file, said(file)]).toEqual([file, expect.stringContaining(says)]);
      expect(said('packages/server/src/waits.ts')).toContain('Promises must be awaited');
      expect([done.status, said('packages/server/src/fine.ts')]).toEqual([1, '']);
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
  });
});
