import { QueryClient } from '@tanstack/react-query';
import { unsent } from './unsent';

/** Milliseconds without an act that is on the screen already and all of them answered, after which its move is read anew. */
const PAUSE = 400;
/** Milliseconds after which it is read anew although they go on. */
const LONGEST = 10_000;

/** Since when acts follow each other of which the screen shows already what they do, and the last one; by move. */
const runs = new Map<string, { readonly first: number; readonly last: number }>();
const waiting = new Map<string, Promise<void>>();

/** What an act on a move does is on the screen: reading it anew waits for a pause in such acts. */
export function isShown(move: string): void {
  const now = performance.now();
  const run = runs.get(move);
  runs.set(move, { first: run && now - run.last < PAUSE ? run.first : now, last: now });
}

/** Reads what is on the screen of a move anew: at once, or when nobody works through its rows for a moment, once for all who ask meanwhile. */
export function readAnew(queries: QueryClient, move: string): Promise<void> {
  const known = waiting.get(move);
  if (known) return known;
  const read = async (): Promise<void> => {
    for (let left = pauseLeft(move); left > 0; left = pauseLeft(move)) await new Promise((resolve) => setTimeout(resolve, left));
    waiting.delete(move);
    await queries.invalidateQueries({ queryKey: ['move', move] });
  };
  const reading = read();
  if (pauseLeft(move) > 0) waiting.set(move, reading);
  return reading;
}

/** Moves that are being read for what somebody else did; true: once more afterwards. */
const under = new Map<string, boolean>();

/**
 * Reads what is on the screen of a move anew at once, although somebody works through its rows here: somebody else changed it. What is done
 * meanwhile is read once this is read, and does not begin it anew, or it would never end.
 */
export async function readNow(queries: QueryClient, move: string): Promise<void> {
  if (under.has(move)) {
    under.set(move, true);
    return;
  }
  do {
    under.set(move, false);
    await queries.invalidateQueries({ queryKey: ['move', move] });
  } while (under.get(move));
  under.delete(move);
}

function pauseLeft(move: string): number {
  const run = runs.get(move);
  if (!run) return 0;
  const now = performance.now();
  // An act that waits for its answer changes what would be read, and has to wait for it at the server.
  const last = unsent.waiting(move) > 0 ? now : run.last;
  return Math.min(last + PAUSE, run.first + LONGEST) - now;
}
