import { readFileSync } from 'node:fs';
import { Find, TextReading, readText } from '@wanderon/core';
import { UsageError, parseName } from './zoneFiles';

/**
 * Reads texts as people have them and prints what they give: one find a line, or one JSON object a file. Gives the exit code: 0 where
 * everything that was found is sure, 1 where something is asked about or nothing was found. Throws a UsageError.
 */
export function read(
  files: readonly string[],
  { zone, as = 'old', json }: { zone?: string | undefined; as?: string | undefined; json?: boolean | undefined },
): number {
  if (as !== 'old' && as !== 'new') throw new UsageError(`--as takes old or new, not ${as}.`);
  const name = zone === undefined ? undefined : parseName(zone).toString();
  if (as === 'old' && name === undefined) throw new UsageError('What a place has is about a domain: give --zone NAME.');
  let code = 0;
  for (const file of files) {
    const reading = readText(readFileSync(file === '-' ? 0 : file, 'utf8'), { zone: name, as, own: [] });
    const kept = reading.finds.filter(({ trust }) => trust !== 'out');
    if (kept.length === 0 || kept.some(({ trust }) => trust === 'ask')) code = 1;
    if (json) console.log(JSON.stringify({ file, ...shown(reading) }));
    else print(file, reading, files.length > 1);
  }
  return code;
}

function shown({ finds, unread, leftOut, serial }: TextReading): object {
  return { finds, unread, leftOut, serial: serial ?? null };
}

const MARKS: Readonly<Record<Find['trust'], string>> = { sure: 'sure', ask: 'ask ', out: 'out ' };

function print(file: string, { finds, unread, leftOut }: TextReading, isOneOfMany: boolean): void {
  const front = isOneOfMany ? `${file}:` : '';
  for (const { kind, owner, type, data, ttl, trust, questions, line } of finds) {
    const what = kind === 'record' ? `${owner} ${ttl ?? '-'} ${type} ${data}` : `${kind} ${kind === 'name' ? owner : data}`;
    console.log(`${front}${line}: ${MARKS[trust]} ${what}${questions.length > 0 ? `  ; ${questions.join(' ')}` : ''}`);
  }
  for (const { line, text, problem } of unread) console.log(`${front}${line}: not read: ${text}${problem === undefined ? '' : `  ; ${problem}`}`);
  if (leftOut > 0) console.log(`${front} ${leftOut} more lines are beyond what is read.`);
}
