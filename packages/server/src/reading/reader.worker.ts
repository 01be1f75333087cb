import { parentPort } from 'node:worker_threads';
import { InvalidInput } from '../refusals';
import { LargeKind, LargeValues, readLarge } from './readLarge';

/** Something to read, by a number of its own. */
export interface ReadAsked {
  readonly id: number;
  readonly kind: LargeKind;
  readonly octets: Uint8Array;
  readonly zone: string | null;
}

/** What is told of it: some of its record sets, then what it is, or what is wrong. */
export type ReadTold =
  | { readonly id: number; readonly part: readonly unknown[] }
  | { readonly id: number; readonly value: LargeValues[LargeKind] }
  | { readonly id: number; readonly refused: string; readonly more: InvalidInput['more'] }
  | { readonly id: number; readonly failed: string };

/** Sets handed over at a time: whoever takes them does other things in between. */
const PART = 1000;

parentPort?.on('message', ({ id, kind, octets, zone }: ReadAsked) => {
  const tell = (told: ReadTold): void => parentPort!.postMessage(told);
  try {
    const value = readLarge(kind, octets, zone);
    if (!('sets' in value) || !Array.isArray(value.sets)) return tell({ id, value });
    const sets = value.sets as readonly unknown[];
    for (let from = 0; from < sets.length; from += PART) tell({ id, part: sets.slice(from, from + PART) });
    tell({ id, value: { ...value, sets: [] } });
  } catch (error) {
    if (error instanceof InvalidInput) tell({ id, refused: error.title, more: error.more });
    else tell({ id, failed: error instanceof Error ? (error.stack ?? error.message) : String(error) });
  }
});
