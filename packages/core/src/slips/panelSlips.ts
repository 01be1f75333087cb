import type { RRsetText } from '../dns/record';
import { WrongSet } from './records/slip';
import { lacking } from './records/typedValue';
import { SAYS_LITTLE, recordSlips } from './recordSlips';

/** One set of the plan, with what stood there before where records change in place. */
export interface PlannedSet {
  readonly owner: string;
  readonly type: string;
  readonly planned: readonly string[];
  readonly found: readonly string[];
}

export interface PanelSlip {
  readonly owner: string;
  readonly type: string;
  /** What is wrong and what to type, a sentence for each slip. */
  readonly texts: readonly string[];
}

/** Codes that say no more than that something was not typed yet. */
const NOT_YET: ReadonlySet<string> = new Set([...SAYS_LITTLE, 'one spelling', 'different', 'text split']);

/**
 * The slips in what a panel shows, against the plan: all of it is known, so that a record under another name or type is found wherever it is.
 * What is simply not there yet is none. Names absolute, data as in a zone file.
 *
 *     panelSlips('choir.example.', [{ owner: '_dmarc.choir.example.', type: 'TXT', planned: ['"v=DMARC1; p=none"'], found: [] }],
 *       [{ owner: 'dmarc.choir.example.', type: 'TXT', ttl: 300, data: ['"v=DMARC1; p=none"'] }])
 *     // [{ …, texts: ['It stands at dmarc.choir.example: the underscore is missing. Type _dmarc as the name.'] }]
 */
export function panelSlips(zone: string, rows: readonly PlannedSet[], shown: readonly RRsetText[]): PanelSlip[] {
  const sets = new Map(shown.map(({ owner, type, data }) => [`${owner.toLowerCase()} ${type}`, data]));
  const at = (owner: string, type: string): readonly string[] => sets.get(`${owner.toLowerCase()} ${type}`) ?? [];
  return rows.flatMap(({ owner, type, planned, found }) => {
    const served = at(owner, type);
    if (planned.length === 0 || (lacking(type, planned, served).length === 0 && served.length === planned.length)) return [];
    const wrong: WrongSet = { zone, owner, type, planned, served, found, elsewhere: at, rows, isFront: () => false };
    const texts = recordSlips(wrong).flatMap(({ code, text }) => (NOT_YET.has(code) ? [] : [text]));
    return texts.length > 0 ? [{ owner, type, texts: [...new Set(texts)] }] : [];
  });
}
