import { AllGivenItem } from '@wanderon/contract';
import { Find, TextReading, Unread, givenKey, namesAnything } from '@wanderon/core';

/** Characters of the line that a find stood in. */
const LONGEST_LINE = 300;
/** Finds of one text that are taken up here; whoever has more has a zone, which goes into the survey. */
const MOST = 250;
/** Lines that were not understood, as they are shown. */
const MOST_UNREAD = 20;

/** What a text of the new place gives, and where each of it stands in the text. */
export interface ReadItems {
  readonly items: readonly AllGivenItem[];
  readonly lines: ReadonlyMap<string, { readonly line: number; readonly lastLine: number; readonly text: string }>;
  /** Lines of which nothing was made, and which name an address or a host: something may be in them. */
  readonly unread: readonly Unread[];
}

/** The finds of a reading as given things. The line that each stood in stays in this browser: a mail may have a password in it. Of two ways to read it both are given, to be asked about. */
export function readItems(text: string, { finds, unread }: TextReading): ReadItems {
  const all = text.split('\n');
  const lines = new Map<string, { line: number; lastLine: number; text: string }>();
  const items: AllGivenItem[] = [];
  const add = (find: Find, owner: string, data: string): void => {
    const item: AllGivenItem = {
      ...{ kind: find.kind as AllGivenItem['kind'], owner, type: find.type, data },
      doubts: find.trust === 'ask' ? find.questions.slice(0, 10).map((one) => one.slice(0, 600)) : [],
    };
    lines.set(givenKey(item), { line: find.line, lastLine: find.lastLine, text: (all[find.line - 1] ?? '').trim().slice(0, LONGEST_LINE) });
    items.push(item);
  };
  for (const find of finds) {
    if (find.kind === 'name' || find.trust === 'out' || find.data === '' || items.length >= MOST) continue;
    add(find, find.owner, find.data);
    for (const other of find.others) add(find, other.owner, other.data);
  }
  return { items, lines, unread: unread.filter(({ text: line }) => namesAnything(line)).slice(0, MOST_UNREAD) };
}
