import { readDomain } from './readDomain';

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
/** The most characters of a list that are read. */
const LIMIT = 2_000_000;

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
  const taken = text.length > LIMIT ? text.slice(0, text.lastIndexOf('\n', LIMIT) + 1) : text;
  for (let at = text.indexOf('\n', taken.length); at >= 0; at = text.indexOf('\n', at + 1)) leftOut += 1;
  taken.split(/\r\n|\n|\r/).forEach((raw, index) => {
    const line = raw.replace(/#.*$/, '').trim();
    if (line === '') return;
    if (domains.size >= DOMAIN_LIST_LIMIT) {
      leftOut += 1;
      return;
    }
    const cells = line
      .split(/[\t;,|\s]+/)
      .map((cell) => cell.replace(/^"|"$/g, ''))
      .filter((cell) => cell !== '');
    const readings = cells.slice(0, 30).map(readDomain);
    const good = readings.find((reading) => reading.ok);
    if (good?.ok) {
      const { zone } = good.choices[0]!;
      if (domains.has(zone)) doubles += 1;
      domains.add(zone);
    } else if (!first || cells.some((cell) => cell.includes('.'))) {
      // The first line of a table names its columns.
      const reading = readings.find((one) => !one.ok);
      bad.push({ line: index + 1, text: raw.trim().slice(0, 80), problem: reading && !reading.ok ? reading.problem : 'There is no domain in it.' });
    }
    first = false;
  });
  return { domains: [...domains], bad, doubles, leftOut };
}
