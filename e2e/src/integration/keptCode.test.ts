import { spawn } from 'node:child_process';
import { chmodSync, mkdtempSync, readdirSync, rmSync, statSync, utimesSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ROOT } from '../../../command/src/processes';

describe('what was compiled of a program', () => {
  const folder = mkdtempSync(join(tmpdir(), 'wanderon-kept-'));
  const program = join(folder, 'program.js');
  afterAll(() => rmSync(folder, { recursive: true, force: true }));

  const run = (...args: string[]): Promise<string> =>
    new Promise((resolve) => {
      const child = spawn(process.execPath, [join(ROOT, 'command/dist/keptCode.js'), program, ...args]);
      let said = '';
      for (const from of [child.stdout, child.stderr]) from.on('data', (part) => (said += String(part)));
      child.once('close', (code) => resolve(`${said.trim()} (${code})`));
    });
  const kept = (): string[] => readdirSync(folder).filter((name) => name.endsWith('.kept'));
  const write = (text: string, at: number): void => {
    writeFileSync(program, text);
    utimesSync(program, at, at);
  };
  const SAYS = (word: string): string => `console.log('${word}', process.argv.slice(2).join('+'), require('node:path').basename(__filename));`;

  it('is kept by the first that runs it, and taken by the next, which sees itself and its arguments', async () => {
    write(SAYS('one'), 1_790_000_000);
    expect(kept()).toEqual([]);
    expect(await run('a', 'b')).toBe('one a+b program.js (0)');
    const [name] = kept();
    const before = statSync(join(folder, name!)).mtimeMs;
    expect(await run('c')).toBe('one c program.js (0)');
    // Nobody had to write it again.
    expect([kept(), statSync(join(folder, name!)).mtimeMs]).toEqual([[name], before]);
  });

  it('is not taken for another program, however long that is; what is kept of the one before goes', async () => {
    const before = kept();
    write(SAYS('two'), 1_790_000_001);
    expect(await run()).toBe('two  program.js (0)');
    expect([kept().length, kept()[0] === before[0]]).toEqual([1, false]);
  });

  it('is written whole or not at all where several start at once', async () => {
    write(SAYS('six'), 1_790_000_002);
    expect(new Set(await Promise.all(Array.from({ length: 6 }, () => run())))).toEqual(new Set(['six  program.js (0)']));
    expect(readdirSync(folder).sort()).toEqual(['program.js', kept()[0]].sort());
    expect(await run()).toBe('six  program.js (0)');
  });

  it('is done without where it is spoiled, and a program that fails fails as it would', async () => {
    writeFileSync(join(folder, kept()[0]!), 'nonsense');
    expect(await run()).toBe('six  program.js (0)');
    write("console.log('before'); throw new TypeError('it fails');", 1_790_000_003);
    expect(await run()).toMatch(/^before\n[^]*TypeError: it fails[^]*program\.js[^]*\(1\)$/);
  });

  it('is not kept where nothing can be written', async () => {
    write(SAYS('shut'), 1_790_000_004);
    for (const name of kept()) rmSync(join(folder, name));
    chmodSync(folder, 0o555);
    try {
      expect(await run()).toBe('shut  program.js (0)');
      // Who may write everywhere does.
      expect(kept().length).toBe(process.getuid?.() === 0 ? 1 : 0);
    } finally {
      chmodSync(folder, 0o755);
    }
  });
});
