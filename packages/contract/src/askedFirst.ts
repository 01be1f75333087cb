import { MOST_ROWS, PAGE_ROWS } from './ledgerParts';

export type Part = 'survey' | 'ledger' | 'watch';

/** What each chapter of a move shows beside the head of the move. */
const PARTS: ReadonlyMap<string, readonly Part[]> = new Map<string, readonly Part[]>(
  Object.entries({
    survey: ['survey'],
    rebuild: ['ledger'],
    timetable: [],
    switch: ['watch', 'ledger'],
    sheet: ['ledger'],
    lower: ['ledger'],
    raise: ['ledger'],
    watch: ['watch'],
    compare: ['survey', 'ledger'],
  }),
);

/** What a chapter shows, by its name as it stands in an address. */
export const partsOf = (chapter: string): readonly Part[] => PARTS.get(chapter) ?? [];

/** Moves that are open as they stand on the Desk: their first page. */
export const OPEN_MOVES = '/api/moves?state=open&order=due&limit=50';

/** The time by which the job runs. */
export const CLOCK_NOW = '/api/clock';

/** The first rows of the ledger of a move's latest leg, and those that follow, for whoever does not know its id, nor theirs. */
export const latestLedger = (move: string): string => `/api/moves/${move}/ledger`;
export const restOfLedger = (move: string): string => `${latestLedger(move)}?from=${PAGE_ROWS}&limit=${MOST_ROWS}`;

/** What a page asks for first; `move`: the id of the one that it is about. */
export interface AskedFirst {
  readonly move?: string;
  /** Addresses; `ledger`, and the `rest` of it: the rows that it shows are those of the latest leg. */
  readonly of: Readonly<Partial<Record<'me' | 'clock' | 'move' | 'ledger' | 'rest' | 'desk', string>>>;
}

/**
 * What the page at an address asks for before anything else. The server names it with the page, so that it is on its way while the browser
 * still reads the page's program.
 *
 *     askedFirst('/moves/<id>/timetable', '').of  // { me: '/api/me', clock: '/api/clock', move: '/api/moves/<id>' }
 */
export function askedFirst(path: string, search: string): AskedFirst {
  // Who has a link to a sheet is asked for no session.
  if (path.startsWith('/sheet/')) return { of: {} };
  // Nothing is drawn without the time.
  const always = { me: '/api/me', clock: CLOCK_NOW };
  if (path === '/') return { of: { ...always, desk: OPEN_MOVES } };
  const [, move, chapter = ''] = /^\/moves\/([0-9a-f]{8}-[0-9a-f-]{27})(?:\/(\w+))?$/.exec(path) ?? [];
  if (move === undefined) return { of: always };
  const isOfLatest = partsOf(chapter).includes('ledger') && !/[?&]leg=/.test(search);
  return { move, of: { ...always, move: `/api/moves/${move}`, ...(isOfLatest && { ledger: latestLedger(move), rest: restOfLedger(move) }) } };
}
