import { Inject, Injectable } from '@nestjs/common';
import { MoveSummary, moveQuerySchema } from '@wanderon/contract';
import { z } from 'zod';
import { CLOCK, Clock } from '../clock/clock';
import { DATABASE, Database } from '../db/database';
import { LegLoader } from './legLoader';
import { deskColumns, summaryOf } from './summary';

/** The newest first; or as they stand on the Desk, where of those that are due alike the one that was begun first has waited longest. */
const ORDERS = {
  begun: [
    { column: 'moves.created_at', order: 'desc' },
    { column: 'moves.id', order: 'desc' },
  ],
  due: [{ column: 'moves.desk_group' }, { column: 'moves.desk_due' }, { column: 'moves.created_at' }, { column: 'moves.id' }],
};
/** Group and moment on the Desk, beginning and id of the last move of a page. */
const NUMBER = '(-?[\\d.]+(?:e[+-]?\\d+)?)';
const KEY = new RegExp(`^(\\d)_${NUMBER}_${NUMBER}_([0-9a-f-]{36})$`);

interface MovePageRow {
  readonly id: string;
  readonly created_at: number;
  readonly desk_group: number;
  readonly desk_due: number;
  readonly summary: MoveSummary | null;
}

/** Summaries of moves, a page at a time. */
@Injectable()
export class MovePages {
  constructor(
    private readonly loader: LegLoader,
    @Inject(CLOCK) private readonly clock: Clock,
    @Inject(DATABASE) private readonly database: Database,
  ) {}

  /** A page of summaries in one of the orders; `after` is the key of the last one of the page before. */
  async list(query: z.output<typeof moveQuerySchema>): Promise<{ moves: MoveSummary[]; next: string | null }> {
    const columns = ORDERS[query.order];
    const rows = this.database('moves').join('domains', 'domains.id', 'moves.domain_id').orderBy(columns);
    if (query.state === 'open') void rows.where('moves.state', 'open');
    if (query.state === 'ended') void rows.whereNot('moves.state', 'open');
    if (query.text !== '') void rows.whereILike('domains.name', `%${query.text.replace(/[\\%_]/g, '\\$&')}%`);
    const key = KEY.exec(query.after ?? '');
    if (key && query.order === 'begun') void rows.whereRaw('(moves.created_at, moves.id) < (?::float8, ?::uuid)', [Number(key[3]), key[4]!]);
    if (key && query.order === 'due')
      void rows.whereRaw('(moves.desk_group, moves.desk_due, moves.created_at, moves.id) > (?::smallint, ?::float8, ?::float8, ?::uuid)', [
        ...key.slice(1, 4).map(Number),
        key[4]!,
      ]);
    const found = await rows
      .limit(query.limit + 1)
      .select<MovePageRow[]>('moves.id', 'moves.created_at', 'moves.desk_group', 'moves.desk_due', 'moves.summary');
    const page = found.slice(0, query.limit);
    const moves = await Promise.all(page.map(async (row) => row.summary ?? this.made(row.id)));
    const last = page.at(-1);
    const after = last && `${last.desk_group}_${last.desk_due}_${last.created_at}_${last.id}`;
    return { moves, next: found.length > query.limit ? (after ?? null) : null };
  }

  /** One that was brought over from before summaries were kept. */
  private async made(id: string): Promise<MoveSummary> {
    const summary = summaryOf(await this.loader.load(id), this.clock.now());
    await this.database('moves')
      .where({ id })
      .whereNull('summary')
      .update({ summary: JSON.stringify(summary), ...deskColumns(summary) });
    return summary;
  }
}
