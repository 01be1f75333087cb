import { createHmac, hkdfSync, timingSafeEqual } from 'node:crypto';
import { Database } from '../db/database';
import { TrailMarks } from './trailMarks';
import { Keys, keyNumber } from '../secrets/sealer';

/** Events that are sealed in one transaction. */
const AT_A_TIME = 500;
/** An event may be committed after others with later numbers: so far back it is looked for what is not sealed yet. */
const BEHIND = 5000;

/** An event with what was sealed of it; columns of JSON as the database writes them. */
interface SealedRow {
  readonly id: string;
  readonly at: number | null;
  readonly person_id: string | null;
  readonly domain: string | null;
  readonly move_id: string | null;
  readonly kind: string | null;
  readonly text: string | null;
  readonly before: string | null;
  readonly after: string | null;
}

/** A seal with what stands there now of its event. */
type CheckedRow = SealedRow & { n: string; key_number: string; seal: Buffer; nonce: string | null; mark: string | null };

/** The seal over an event and the seal before it: an HMAC under a key that only seals the trail. */
function sealOf(key: Uint8Array, previous: Uint8Array, event: SealedRow): Buffer {
  const { id, at, person_id, domain, move_id, kind, text, before, after } = event;
  return createHmac('sha256', key)
    .update(previous)
    .update(JSON.stringify([id, at, person_id, domain, move_id, kind, text, before, after]))
    .digest();
}

const parsed = (text: string | null): unknown => (text === null ? null : (JSON.parse(text) as unknown));
const said = (text: string): string => `“${text.slice(0, 80)}”`;

const keyOf = (key: Buffer): Uint8Array => new Uint8Array(hkdfSync('sha256', key, '', 'wanderon trail', 32));

const eventColumns = (database: Database) =>
  ['at', 'person_id', 'domain', 'move_id', 'kind', 'text']
    .map((column) => `e.${column}`)
    .concat(
      // Written alike each time: jsonb has one form.
      ['before', 'after'].map((column) => database.raw(`e.${column}::text as ${column}`) as unknown as string),
    );

/** Seals what was written since; one process at a time does. Gives how many. */
export async function sealEvents(database: Database, keys: Keys): Promise<number> {
  return database.transaction(async (transaction) => {
    const { rows } = await transaction.raw<{ rows: { mine: boolean }[] }>('select pg_try_advisory_xact_lock(hashtextextended(?, 3)) as mine', ['trail']);
    if (!rows[0]!.mine) return 0;
    const last = await transaction<{ n: string; seal: Buffer }>('trail_seals').orderBy('n', 'desc').first('seal');
    const waiting = await transaction('events as e')
      .whereRaw('e.id > coalesce((select max(event_id) from trail_seals), 0) - ?', [BEHIND])
      .whereNotExists(transaction('trail_seals as s').whereRaw('s.event_id = e.id'))
      .orderBy('e.id')
      .limit(AT_A_TIME)
      .select<SealedRow[]>('e.id', ...eventColumns(transaction));
    const key = keyOf(keys.WANDERON_SECRET_KEY);
    const number = keyNumber(keys.WANDERON_SECRET_KEY);
    let seal: Uint8Array = last?.seal ?? Buffer.alloc(0);
    const made = waiting.map((event) => ({ event_id: event.id, key_number: number, seal: (seal = sealOf(key, seal, event)) }));
    if (made.length > 0) await transaction('trail_seals').insert(made);
    return made.length;
  });
}

export interface TrailCheck {
  readonly sealed: number;
  /** Written, and not sealed yet. */
  readonly open: number;
  /** The last seal, by which somebody can tell later that nothing before it was cut off. */
  readonly last: string | undefined;
  /** What the first one that does not fit is, in words; undefined where all fit. */
  readonly problem: string | undefined;
}

/** Looks at every seal in order; ends at the first that does not fit: an event that was changed, removed, put in or moved. */
export async function checkTrail(database: Database, keys: Keys): Promise<TrailCheck> {
  const known = new Map([keys.WANDERON_SECRET_KEY, ...keys.WANDERON_FORMER_KEYS].map((key) => [keyNumber(key), keyOf(key)]));
  const marks = new TrailMarks(keys);
  let previous: Uint8Array = Buffer.alloc(0);
  let sealed = 0;
  let isMarked = false;
  const [unsealed] = await database('events as e')
    .whereNotExists(database('trail_seals as s').whereRaw('s.event_id = e.id'))
    .count<{ count: string }[]>('* as count');
  const open = Number(unsealed!.count);
  const told = (problem: string | undefined): TrailCheck => ({ sealed, open, last: sealed === 0 ? undefined : Buffer.from(previous).toString('hex'), problem });
  for (let n = '0'; ;) {
    const rows: CheckedRow[] = await database('trail_seals as s')
      .leftJoin('events as e', 'e.id', 's.event_id')
      .where('s.n', '>', n)
      .orderBy('s.n')
      .limit(AT_A_TIME)
      .select('s.n', 's.key_number', 's.seal', 's.event_id as id', 'e.nonce', 'e.mark', ...eventColumns(database));
    for (const row of rows) {
      if (row.text === null) return told(`event ${row.id} is not there any more`);
      // Those from before there were marks come first.
      if (row.mark !== null) isMarked = true;
      if (row.mark === null ? isMarked : !marks.holds({ ...row, before: parsed(row.before), after: parsed(row.after) }, row.mark))
        return told(`event ${row.id} (${said(row.text)}) was not written by Wanderon, or was changed since`);
      const key = known.get(row.key_number);
      if (!key) return told(`event ${row.id} was sealed with another key than is given`);
      const seal = sealOf(key, previous, row);
      if (seal.length !== row.seal.length || !timingSafeEqual(seal, row.seal))
        return told(`event ${row.id} (${said(row.text)}) is not as it was sealed, or not in its place`);
      previous = seal;
      sealed += 1;
    }
    if (rows.length < AT_A_TIME) return told(undefined);
    n = rows.at(-1)!.n;
  }
}
