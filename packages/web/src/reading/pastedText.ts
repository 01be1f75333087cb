import { Find, Subject, TextReading } from '@wanderon/core';
import { useMemo, useState } from 'react';
import { useReading } from './useReading';

/** What a person says of a find: taken, left, or read in another way, by its place among the others. */
export type Said = 'take' | 'leave' | number;

/** What was pasted, as it was read, with what a person set right about it. */
export interface PastedText {
  readonly text: string;
  readonly reading: TextReading;
  readonly isReading: boolean;
  readonly change: (text: string) => void;
  /** Adds a file or another paste below what is there. */
  readonly add: (text: string) => void;
  readonly say: (finds: readonly Find[], said: Said) => void;
  readonly saidOf: (find: Find) => Said | undefined;
  readonly isTaken: (find: Find) => boolean;
  /** What is taken, as it is taken. */
  readonly taken: readonly Find[];
}

/** Finds that say the same of the same line are one, also after the text was changed elsewhere. */
export function keyOf({ kind, owner, type, data }: Find): string {
  return `${kind}/${owner}/${type}/${data}`;
}

export function usePastedText(subject: Subject): PastedText {
  const [text, setText] = useState('');
  const [said, setSaid] = useState<ReadonlyMap<string, Said>>(new Map());
  const { reading, isReading } = useReading(text, subject);
  const taken = useMemo(
    () =>
      reading.finds.flatMap((find): Find[] => {
        const what = said.get(keyOf(find));
        if (typeof what === 'number') return [{ ...find, ...find.others[what] }];
        return what === 'take' || (what === undefined && find.trust === 'sure') ? [find] : [];
      }),
    [reading, said],
  );
  return {
    text,
    reading,
    isReading,
    change: setText,
    add: (more) => setText((before) => (before.trim() === '' ? more : `${before.replace(/\n*$/, '')}\n\n${more}`)),
    say: (finds, what) => setSaid((before) => new Map([...before, ...finds.map((find): [string, Said] => [keyOf(find), what])])),
    saidOf: (find) => said.get(keyOf(find)),
    isTaken: (find) => {
      const what = said.get(keyOf(find));
      return what === undefined ? find.trust === 'sure' : what !== 'leave';
    },
    taken,
  };
}
