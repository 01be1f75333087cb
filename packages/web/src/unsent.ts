import { ProblemError } from './problemError';

/** Milliseconds between two attempts; the last one stands for all that follow. */
const PAUSES: readonly number[] = [1000, 2000, 4000, 8000];
/** Milliseconds after which an act that nobody answers is given up. */
const LONGEST = 15 * 60_000;
/** What a server says, or a proxy in its place, that is not there for a while. */
const AWAY: ReadonlySet<number> = new Set([0, 502, 503, 504]);

/** When the server stopped answering acts, as `performance.now()`; undefined where it answers. */
let since: number | undefined;
const listeners = new Set<() => void>();
/** The last act on each move that waits for its answer, and how many do. */
const turns = new Map<string, { readonly last: Promise<unknown>; readonly waiting: number }>();

function changed(): void {
  for (const listener of listeners) listener();
}

function tell(at: number | undefined): void {
  if (since === at) return;
  since = at;
  changed();
}

export const unsent = {
  subscribe: (listener: () => void): (() => void) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  },
  since: (): number | undefined => since,
  /** Acts on a move, or on all of them, that are not answered yet. */
  waiting: (move?: string): number => [...turns].reduce((sum, [id, turn]) => sum + (move === undefined || move === id ? turn.waiting : 0), 0),
};

/**
 * Does an act on a move once those before it are answered, and asks again for as long as nobody answers: an undo never overtakes what it
 * takes back, and nothing waits for what is read afterwards. `again`: an attempt was made before that may have arrived. Throws what `work`
 * throws where that is an answer, and where nobody answered for a quarter of an hour.
 */
export async function inTurn<T>(move: string, work: (again: boolean) => Promise<T>): Promise<T> {
  const before = turns.get(move);
  const mine = (before?.last ?? Promise.resolve()).then(() => persistently(work));
  const last = mine.catch(() => undefined);
  turns.set(move, { last, waiting: (before?.waiting ?? 0) + 1 });
  changed();
  try {
    return await mine;
  } finally {
    const { waiting, ...turn } = turns.get(move)!;
    if (waiting === 1) turns.delete(move);
    else turns.set(move, { ...turn, waiting: waiting - 1 });
    changed();
  }
}

async function persistently<T>(work: (again: boolean) => Promise<T>): Promise<T> {
  const began = performance.now();
  for (let attempt = 0; ; attempt++) {
    try {
      const result = await work(attempt > 0);
      tell(undefined);
      return result;
    } catch (error) {
      const isAway = error instanceof ProblemError && AWAY.has(error.problem.status);
      if (!isAway || performance.now() - began > LONGEST) {
        tell(undefined);
        throw error;
      }
      tell(since ?? began);
      await pause(PAUSES[Math.min(attempt, PAUSES.length - 1)]!);
    }
  }
}

/** For some time, or until the machine is connected again. */
function pause(milliseconds: number): Promise<void> {
  return new Promise((resolve) => {
    const done = (): void => {
      window.clearTimeout(timer);
      window.removeEventListener('online', done);
      resolve();
    };
    const timer = window.setTimeout(done, milliseconds);
    window.addEventListener('online', done);
  });
}

/** Names of acts of this page of which no event was heard yet. */
const own = new Set<string>();

/** A name for an act of this page, by which the server tells that it did it already. */
export function ownAct(): string {
  const name = actName();
  own.add(name);
  return name;
}

/** Whether an event tells of an act of this page; each act is told of once. */
export function isOwn(act: string): boolean {
  return own.delete(act);
}

/** A name that nobody else has: 32 hexadecimal digits. */
export function actName(): string {
  return [...crypto.getRandomValues(new Uint8Array(16))].map((octet) => octet.toString(16).padStart(2, '0')).join('');
}
