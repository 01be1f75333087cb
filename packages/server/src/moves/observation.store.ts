import { Inject, Injectable } from '@nestjs/common';
import { Instant, LOOKS_MISSED, fingerprint } from '@wanderon/core';
import { Knex } from 'knex';
import { DATABASE, Database } from '../db/database';
import { Recent } from '../db/recent';
import { ObservationRow } from './move.rows';

/** One sight of one thing: what it says, or why nothing was heard. */
export interface Sighted {
  readonly kind: 'parent' | 'zone' | 'lookout' | 'drift' | 'registration' | 'astray' | 'work' | 'look';
  readonly subject: string;
  readonly item?: string;
  readonly server?: string;
  /** Undefined: nothing was heard. Keys in an order of its own that is always the same. */
  readonly value: unknown;
  readonly problem?: string;
  readonly refused?: boolean;
  readonly note?: Record<string, unknown>;
}

/** Octets of values that are held, as the database stores them (compressed). */
const HELD = 20_000_000;
const WITHOUT_VALUE = [
  'id',
  'leg_id',
  'kind',
  'subject',
  'item',
  'server',
  'digest',
  'problem',
  'refused',
  'note',
  'first_seen',
  'last_seen',
  'every',
  'count',
] as const;

/** Observations as runs: equal sights one after the other are one row that is drawn out. */
@Injectable()
export class ObservationStore {
  private readonly values = new Recent<{ readonly value: unknown }>(HELD);

  constructor(@Inject(DATABASE) private readonly database: Database) {}

  /**
   * Within a transaction that holds the move. `at`: when the look began, and it `ended`: what is otherwise than before may have become so
   * up to the end, and what is as before was so at the beginning at least. `every`: seconds to the next look, as planned.
   */
  async add(
    leg: string,
    { at, ended = at }: { readonly at: Instant; readonly ended?: Instant | undefined },
    every: number,
    sights: readonly Sighted[],
    transaction: Database,
  ): Promise<void> {
    if (sights.length === 0) return;
    const kinds = [...new Set(sights.map((sight) => sight.kind))];
    const subjects = [...new Set(sights.map((sight) => sight.subject))];
    const { rows: latest } = await transaction.raw<{ rows: (ObservationRow & { silent: boolean })[] }>(
      `select distinct on (kind, subject, item, value is null) id, kind, subject, item, digest, problem, last_seen, every, value is null as silent
         from observations where leg_id = ? and kind = any(?) and subject = any(?)
        order by kind, subject, item, value is null, id desc`,
      [leg, kinds, subjects],
    );
    const before = new Map(latest.map((row) => [`${row.kind}\n${row.subject}\n${row.item}\n${row.silent}`, row]));
    const extended: { id: string; note: Record<string, unknown> | null }[] = [];
    const fresh: Record<string, unknown>[] = [];
    for (const { kind, subject, item = '', server = '', value, problem, refused = false, note } of sights) {
      const silent = value === undefined;
      const text = silent ? '' : JSON.stringify(value);
      const digest = fingerprint(text);
      const row = before.get(`${kind}\n${subject}\n${item}\n${silent}`);
      const same = row && row.digest === digest && (row.problem ?? undefined) === problem && at - row.last_seen <= LOOKS_MISSED * row.every;
      if (same) extended.push({ id: row.id, note: note ?? null });
      else
        fresh.push({
          leg_id: leg,
          kind,
          subject,
          item,
          server,
          value: silent ? null : text,
          digest,
          problem: problem ?? null,
          refused,
          note: note ? JSON.stringify(note) : null,
          first_seen: ended,
          last_seen: ended,
          every,
          count: 1,
        });
    }
    if (extended.length > 0)
      await transaction.raw(
        // A clock that was set back takes nothing back that was seen.
        `update observations o set last_seen = greatest(o.last_seen, ?), every = ?, count = o.count + 1, note = v.note
           from jsonb_to_recordset(?::jsonb) as v(id bigint, note jsonb) where o.id = v.id`,
        [at, every, JSON.stringify(extended)],
      );
    if (fresh.length > 0) await transaction.batchInsert('observations', fresh, 200);
  }

  /**
   * What a leg rests on: everything of its own but the runs of lookouts that are over, and what earlier legs of its move, and
   * abandoned moves of the domain, saw of its servers since `since`.
   */
  async ofLeg(leg: string, domain: string, since: Instant, database: Database = this.database): Promise<ObservationRow[]> {
    const own = await this.whole(database('observations').where({ leg_id: leg }).whereNot('kind', 'lookout').orderBy('id'), database);
    const lookouts = await this.latestLookouts(leg, database);
    const before = database('observations')
      .whereIn('kind', ['parent', 'zone'])
      .andWhere('last_seen', '>=', since)
      .whereIn(
        'leg_id',
        database('legs')
          .join('moves', 'moves.id', 'legs.move_id')
          .where({ 'moves.domain_id': domain })
          .where((of) => void of.where('moves.state', 'abandoned').orWhere('moves.id', database('legs').where({ id: leg }).select('move_id')))
          .whereNot('legs.id', leg)
          .select('legs.id'),
      )
      .orderBy('id');
    return [...(await this.whole(before, database)), ...own, ...lookouts];
  }

  /** Rows with their values; what a server answered is megabytes for a zone of thousands of sets, and a row's value never changes. */
  private async whole(rows: Knex.QueryBuilder, database: Database): Promise<ObservationRow[]> {
    const found = await rows.select<Omit<ObservationRow, 'value'>[]>(...WITHOUT_VALUE);
    const values = new Map(found.map((row) => [row.id, this.values.get(row.id)]));
    const missing = found.filter((row) => !values.get(row.id)).map((row) => row.id);
    if (missing.length > 0) {
      const read = database('observations').whereIn('id', missing);
      const size = database.raw('pg_column_size(value) as size');
      for (const row of await read.select<{ id: string; value: unknown; size: number | null }[]>('id', 'value', size)) {
        values.set(row.id, { value: row.value });
        this.values.set(row.id, { value: row.value }, row.size ?? 1);
      }
    }
    return found.map((row): ObservationRow => ({ ...row, value: values.get(row.id)!.value }));
  }

  private async latestLookouts(leg: string, database: Database): Promise<ObservationRow[]> {
    return database('observations')
      .where({ leg_id: leg, kind: 'lookout' })
      .distinctOn('subject', 'item')
      .orderBy(['subject', 'item', { column: 'id', order: 'desc' }])
      .select<ObservationRow[]>('*');
  }

  /** Runs of lookouts, for the curve; at most so many. */
  async lookoutRuns(leg: string, most: number): Promise<ObservationRow[]> {
    return this.database('observations').where({ leg_id: leg, kind: 'lookout' }).orderBy('id').limit(most).select<ObservationRow[]>('*');
  }
}
