import { createHash, randomBytes } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';

/** The key in a file of its own, made where there is none: kept between starts, or what was sealed could not be opened. */
export function secretKey(file: string): string {
  if (!existsSync(file)) writeFileSync(file, randomBytes(32).toString('base64'), { mode: 0o600 });
  return keyIn(file)!;
}

/** The key in a file; undefined where there is none. */
export function keyIn(file: string): string | undefined {
  return existsSync(file) ? readFileSync(file, 'utf8').trim() : undefined;
}

/** By which people tell keys apart without seeing one: eight digits that say nothing of it. */
export function keyMark(key: string): string {
  return createHash('sha256').update(`wanderon key ${key}`).digest('hex').slice(0, 8);
}
