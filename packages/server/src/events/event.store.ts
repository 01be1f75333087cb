import { createHash, randomBytes } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { EventView, TrailEntry, TrailPage } from '@wanderon/contract';
import { CLOCK, Clock } from '../clock/clock';
import { CONFIG, Config } from '../config';
import { DATABASE, Database } from '../db/database';
import { TrailMarks } from './trailMarks';

export interface NewEvent {
  /** Absent where Wanderon itself acted or saw. */
  readonly person?: string | null | undefined;
  readonly domain?: string;
  readonly move?: string;
  readonly kind: string;
  readonly text: string;
  readonly before?: unknown;
  readonly after?: unknown;
  /** What the person's page calls the act: of one name there is one event. */
  readonly act?: string | undefined;
}

/** Entries of a page. */
const PAGE = 100;

/** The append-only trail of who did what to which domain. */
@Injectable()
export class EventStore {
  private readonly marks: TrailMarks;

  constructor(
    @Inject(DATABASE) private readonly database: Database,
    @Inject(CLOCK) private readonly clock: Clock,
    @Inject(CONFIG) config: Config,
  ) {
    this.marks = new TrailMarks(config);
  }

  async add(event: NewEvent, database: Database = this.database): Promise<void> {
    await database('events').insert(this.row(event));
  }

  /** As it is written, now. */
  row(event: NewEvent): Readonly<Record<string, string | number | null>> {
    const json = (value: unknown): string | null => (value === undefined ? null : JSON.stringify(value));
    const row = {
      at: this.clock.now(),
      person_id: event.person ?? null,
      domain: event.domain ?? null,
      move_id: event.move ?? null,
      kind: event.kind,
      text: event.text,
      before: json(event.before),
      after: json(event.after),
    };
    const nonce = event.act === undefined ? randomBytes(16).toString('hex') : nonceOf(event.person ?? null, event.act);
    const parsed = (text: string | null): unknown => (text === null ? null : (JSON.parse(text) as unknown));
    return { ...row, nonce, mark: this.marks.of({ ...row, nonce, before: parsed(row.before), after: parsed(row.after) }) };
  }

  /** Whether an act of a person is on record, by the name that their page gave it. */
  async isOnRecord(person: string, act: string): Promise<boolean> {
    const nonce = nonceOf(person, act);
    return (await this.database('events').where({ nonce }).first<object | undefined>('id')) !== undefined;
  }

  /** What was told last of a step, by its title. */
  async lastOfStep(move: string, title: string, database: Database): Promise<string | undefined> {
    const rows = database<{ id: string; move_id: string; kind: string; text: string }>('events').where({ move_id: move, kind: 'step' });
    return (
      await rows
        .andWhereRaw('starts_with(text, ?)', [`${title}: `])
        .orderBy('id', 'desc')
        .first('text')
    )?.text;
  }

  /** What became of a host, the newest first. */
  async ofHost(host: string): Promise<{ at: number; person: string | null; text: string }[]> {
    return this.database('events')
      .leftJoin('people', 'people.id', 'events.person_id')
      .where({ kind: 'host' })
      .andWhereRaw(`events.after ->> 'id' = ?`, [host])
      .orderBy('events.id', 'desc')
      .limit(30)
      .select<{ at: number; person: string | null; text: string }[]>('events.at', { person: 'people.name' }, 'events.text');
  }

  /** A page of everything, the newest first; `text` is looked for in what was said, and in who and which domain. */
  async page(before: number | undefined, text: string): Promise<TrailPage> {
    const query = this.database('events')
      .leftJoin('people', 'people.id', 'events.person_id')
      .orderBy('events.id', 'desc')
      .limit(PAGE + 1)
      .select<(Omit<TrailEntry, 'id'> & { id: string })[]>('events.id', 'events.at', 'people.name as who', 'events.kind', 'events.domain', 'events.text');
    if (before !== undefined) void query.where('events.id', '<', before);
    if (text !== '') {
      const like = `%${text.replace(/[\\%_]/g, '\\$&')}%`;
      void query.andWhere((any) => void any.whereILike('events.text', like).orWhereILike('people.name', like).orWhereILike('events.domain', like));
    }
    const rows = await query;
    const entries = rows.slice(0, PAGE).map((row) => ({ ...row, id: Number(row.id) }));
    return { entries, next: rows.length > PAGE ? entries.at(-1)!.id : null };
  }

  async ofMove(move: string): Promise<EventView[]> {
    const rows = await this.database('events')
      .leftJoin('people', 'people.id', 'events.person_id')
      .where({ move_id: move })
      .orderBy('events.id', 'desc')
      .limit(500)
      .select<(Omit<EventView, 'id'> & { id: string })[]>(
        'events.id',
        'events.at',
        'people.name as who',
        'events.domain',
        'events.kind',
        'events.text',
        'events.before',
        'events.after',
      );
    return rows.map((row) => ({ ...row, id: Number(row.id) }));
  }
}

/** The same for the same act of the same person, and nobody else's; events have each a nonce of their own, so that an act is written once. */
function nonceOf(person: string | null, act: string): string {
  return createHash('sha256').update(`${person}/${act}`).digest('hex').slice(0, 32);
}

/** True for what the database says where an act is on record already. */
export function isOnRecordAlready(error: unknown): boolean {
  return error instanceof Error && (error as { constraint?: unknown }).constraint === 'events_nonce_unique';
}
