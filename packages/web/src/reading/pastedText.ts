import { Find, Name, RRsetText, ServedSays, Subject, TextReading, servedBy, servedSays } from '@wanderon/core';
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
  /** What the last survey says of it; undefined where it has no such set. */
  readonly servedOf: (find: Find) => ServedSays | undefined;
  readonly isTaken: (find: Find) => boolean;
  /** What is taken, as it is taken. */
  readonly taken: readonly Find[];
}

/** Finds that say the same of the same line are one, also after the text was changed elsewhere. */
export function keyOf({ kind, owner, type, data }: Find): string {
  return `${kind}/${owner}/${type}/${data}`;
}

/** `sets`: what the last survey found served, which answers questions. */
export function usePastedText(subject: Subject, sets: readonly RRsetText[] = NONE): PastedText {
  const [text, setText] = useState('');
  const [said, setSaid] = useState<ReadonlyMap<string, Said>>(new Map());
  const { reading, isReading } = useReading(text, subject);
  const answers = useMemo(() => {
    const zone = Name.parse(subject.zone ?? '.');
    const served = servedBy(sets);
    return new Map(reading.finds.map((find) => [find, servedSays(find, zone, served)]));
  }, [reading, sets, subject.zone]);
  const saidOf = (find: Find): Said | undefined => {
    const says = answers.get(find);
    return said.get(keyOf(find)) ?? (find.trust === 'ask' && says?.is === 'same' ? (says.reading ?? 'take') : undefined);
  };
  const isTaken = (find: Find): boolean => {
    const what = saidOf(find);
    return what === undefined ? find.trust === 'sure' : what !== 'leave';
  };
  const taken = useMemo(
    () =>
      reading.finds.filter(isTaken).map((find): Find => {
        const what = saidOf(find);
        return typeof what === 'number' ? { ...find, ...find.others[what] } : find;
      }),
    [reading, said, answers],
  );
  return {
    text,
    reading,
    isReading,
    change: setText,
    add: (more) => setText((before) => (before.trim() === '' ? more : `${before.replace(/\n*$/, '')}\n\n${more}`)),
    say: (finds, what) => setSaid((before) => new Map([...before, ...finds.map((find): [string, Said] => [keyOf(find), what])])),
    saidOf,
    servedOf: (find) => answers.get(find),
    isTaken,
    taken,
  };
}

const NONE: readonly RRsetText[] = [];
