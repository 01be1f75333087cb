import { LiveService, ProgressOf } from './live.service';

/** Milliseconds between two words about long work: pages show them, nothing rests on them. */
const TELL_EVERY = 400;

/** How far long work is: what is being done, in words, and of how much. */
export interface Progress {
  readonly doing: string;
  /** Questions asked, or record sets sent, so far. */
  readonly asked: number;
  /** How many are known to be left; undefined where nobody can say. */
  readonly left?: number | undefined;
}

/** Tells open pages how far long work is, now and then; `over` says that it has ended. A word that is lost is followed by the next one. */
export function tellProgress(live: LiveService, of: ProgressOf): { readonly tell: (progress: Progress) => void; readonly over: () => void } {
  let told = 0;
  const send = (progress: Progress): void => void live.tell({ topic: 'progress', ...of, ...progress }).catch(() => undefined);
  return {
    tell: (progress) => {
      const now = performance.now();
      if (now - told < TELL_EVERY) return;
      told = now;
      send({ ...progress, doing: progress.doing.slice(0, LONGEST_WORDS) });
    },
    over: () => {
      if (told > 0) send({ doing: '', asked: 0 });
    },
  };
}

/** Characters of what is being done: a notification of PostgreSQL takes less than 8,000 octets. */
const LONGEST_WORDS = 500;
