import { plain } from '../survey/words';

/** Which handover sheet a person works from: the records of a zone, TTLs down, TTLs up again, or the nameservers at the registrar. */
export const SHEETS = ['records', 'lower', 'raise', 'registrar'] as const;
export type SheetKind = (typeof SHEETS)[number];

/** What stands before the row's own id where it is ticked on another sheet than that of the records. */
const mark = (sheet: SheetKind): string => (sheet === 'records' ? '' : `${sheet} `);

/**
 * By what a tick on a sheet is on record, and which sheet and row that was.
 *
 *     tickOf('registrar', 'ns1.quillmere.example.')  // 'registrar ns1.quillmere.example.'
 */
export function tickOf(sheet: SheetKind, row: string): string {
  return mark(sheet) + row;
}

/** The sheet of a tick: rows of zones begin with a name, which has no blank of its own. */
export function sheetOfTick(tick: string): SheetKind {
  return SHEETS.find((sheet) => sheet !== 'records' && tick.startsWith(mark(sheet))) ?? 'records';
}

/** The rows that are ticked on one sheet. */
export function tickedOn(sheet: SheetKind, ticks: readonly string[]): string[] {
  return ticks.flatMap((tick) => (sheetOfTick(tick) === sheet ? [tick.slice(mark(sheet).length)] : []));
}

/** Characters of a row that are on record. */
const LONGEST_WORDS = 120;

const ON_SHEET: Readonly<Record<SheetKind, string>> = { records: '', lower: 'lowered, ', raise: 'raised, ', registrar: 'at the registrar, ' };

/**
 * What a tick is about, in words.
 *
 *     tickWords('zone.example./MX/10 mail.zone.example.')    // 'zone.example MX 10 mail.zone.example'
 *     tickWords('registrar ns1.quillmere.example.')          // 'at the registrar, ns1.quillmere.example'
 */
export function tickWords(tick: string): string {
  const sheet = sheetOfTick(tick);
  const row = tick.slice(mark(sheet).length).replace(/\.?\/([A-Z][A-Z0-9-]*)\/(?:- | ?)/, ' $1 ');
  const words = ON_SHEET[sheet] + plain(row);
  return words.length > LONGEST_WORDS ? `${words.slice(0, LONGEST_WORDS)} …` : words;
}
