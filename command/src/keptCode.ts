import { readFileSync, readdirSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs';
import Module, { createRequire } from 'node:module';
import { basename, dirname, join, resolve } from 'node:path';
import { cachedDataVersionTag } from 'node:v8';
import { Script } from 'node:vm';

/** Milliseconds after which what was compiled is kept: by then a server has compiled what it needs to start. */
const STARTED = 1000;

/**
 * Loads a program that is one file, and gives what it exports. What V8 compiles of it is kept beside it, and taken the next time by whoever
 * runs the same file with the same Node: reading and compiling it all is half of what a start costs. Where nothing can be written beside it,
 * each start compiles anew. Throws what the program throws.
 */
export function loadKept(path: string): unknown {
  const file = resolve(path);
  const { size, mtimeMs } = statSync(file);
  // V8 itself only looks at the length of what was compiled.
  const kept = `${file}.${cachedDataVersionTag().toString(16)}-${size}-${Math.round(mtimeMs)}.kept`;
  const cachedData = readIf(kept);
  const script = new Script(Module.wrap(readFileSync(file, 'utf8')), { filename: file, ...(cachedData && { cachedData }) });
  const program = { exports: {} as unknown };
  const run = script.runInThisContext() as (...given: unknown[]) => void;
  run.call(program.exports, program.exports, createRequire(file), program, file, dirname(file));
  if (!cachedData || script.cachedDataRejected) keepOnce(kept, file, script);
  return program.exports;
}

function keepOnce(kept: string, file: string, script: Script): void {
  let isKept = false;
  const keep = (): void => {
    if (isKept) return;
    isKept = true;
    const fresh = `${kept}.${process.pid}`;
    try {
      writeFileSync(fresh, script.createCachedData(), { mode: 0o600 });
      // Several may start at once: each sees it whole or not at all.
      renameSync(fresh, kept);
      for (const other of readdirSync(dirname(file))) if (isOlder(other, basename(file), basename(kept))) rmSync(join(dirname(file), other), { force: true });
    } catch (error) {
      if (!MAY_NOT.has((error as NodeJS.ErrnoException).code)) throw error;
    }
  };
  setTimeout(keep, STARTED).unref();
  process.once('exit', keep);
}

/** The folder is somebody else's, cannot be written, is full, or went away. */
const MAY_NOT: ReadonlySet<string | undefined> = new Set(['EACCES', 'EPERM', 'EROFS', 'ENOSPC', 'EDQUOT', 'ENOENT']);

/** Kept of the same program as it was before, by whichever Node. */
function isOlder(name: string, program: string, kept: string): boolean {
  const found = /^(.+)\.[0-9a-f]+(-\d+-\d+\.kept)$/.exec(name);
  return found?.[1] === program && !kept.endsWith(found[2]!);
}

function readIf(path: string): Buffer | undefined {
  try {
    return readFileSync(path);
  } catch (error) {
    if (['ENOENT', 'EACCES', 'EPERM'].includes((error as NodeJS.ErrnoException).code ?? '')) return undefined;
    throw error;
  }
}

// `node keptCode.js PROGRAM ARGUMENT ...`: the program sees itself and its arguments.
if (require.main === module) {
  process.argv.splice(1, 1);
  loadKept(process.argv[1]!);
}
