import { DomainReading, readDomain } from './readDomain';

/** Domains of a pasted list. */
export interface DomainList {
  /** Registrable domains, each once, in the order given; without final dot. */
  readonly domains: readonly string[];
  readonly bad: readonly { readonly line: number; readonly text: string; readonly problem: string }[];
  /** Lines that name a domain that stood there before. */
  readonly doubles: number;
  /** Lines behind the most that are read. */
  readonly leftOut: number;
}

/** The most domains of one list. */
export const DOMAIN_LIST_LIMIT = 10_000;
/** The most characters of a list that are read, cells of one line, and cells in all. */
const LIMIT = 2_000_000;
const CELLS_OF_LINE = 30;
const CELLS = 40_000;

/**
 * Domains one a line; of a table the first cell that is one. Empty lines, comments and a heading are passed over.
 *
 *     readDomainList('domain;client\nwww.reed-bank.example;Reed bank\n')  // reed-bank.example
 */
export function readDomainList(text: string): DomainList {
  const domains = new Set<string>();
  const bad: { line: number; text: string; problem: string }[] = [];
  let doubles = 0;
  let leftOut = 0;
  let first = true;
  let looked = 0;
  const taken = text.length > LIMIT ? text.slice(0, text.lastIndexOf('\n', LIMIT) + 1) : text;
  for (let at = text.indexOf('\n', taken.length); at >= 0; at = text.indexOf('\n', at + 1)) leftOut += 1;
  taken.split(/\r\n|\n|\r/).forEach((raw, index) => {
    const line = raw.split('#', 1)[0]!.trim();
    if (line === '') return;
    if (domains.size >= DOMAIN_LIST_LIMIT || looked >= CELLS) {
      leftOut += 1;
      return;
    }
    const cells = line
      .split(/[\t;,|\s]+/)
      .map((cell) => cell.replace(/^"|"$/g, ''))
      .filter((cell) => cell !== '');
    let good: DomainReading | undefined;
    let refused: DomainReading | undefined;
    for (const cell of cells.slice(0, CELLS_OF_LINE)) {
      looked += 1;
      const reading = readDomain(cell);
      if (reading.ok) good = reading;
      else refused ??= reading;
      if (good) break;
    }
    if (good?.ok) {
      const { zone } = good.choices[0]!;
      if (domains.has(zone)) doubles += 1;
      domains.add(zone);
    } else if (!first || cells.some((cell) => cell.includes('.'))) {
      // The first line of a table names its columns.
      bad.push({ line: index + 1, text: raw.trim().slice(0, 80), problem: refused && !refused.ok ? refused.problem : 'There is no domain in it.' });
    }
    first = false;
  });
  return { domains: [...domains], bad, doubles, leftOut };
}
