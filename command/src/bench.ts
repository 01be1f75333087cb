import { spawnSync } from 'node:child_process';
import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from './processes';

/** The `bench` command: runs bench/NAME, or every one. */
export function bench(args: readonly string[]): number {
  const folder = join(ROOT, 'bench/dist');
  const names = readdirSync(folder)
    .filter((file) => file.endsWith('.js'))
    .map((file) => file.slice(0, -3));
  const wanted = args.length > 0 ? args : names;
  for (const name of wanted) {
    if (!existsSync(join(folder, `${name}.js`))) {
      console.error(`There is no bench ${name}; there are: ${names.join(', ')}.`);
      return 2;
    }
    const done = spawnSync(process.execPath, [join(folder, `${name}.js`)], { stdio: 'inherit' });
    if (done.status !== 0) return 1;
  }
  return 0;
}
