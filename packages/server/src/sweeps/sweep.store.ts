import { randomUUID } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { SweepRow, SweepSummary, SweepView } from '@wanderon/contract';
import { Instant } from '@wanderon/core';
import { DATABASE, Database } from '../db/database';
import { isId } from '../db/ids';
import { Claims } from '../engine/claims';
import { notFound } from '../refusals';

/** Of a domain `d` of a sweep: nobody who is alive has it in hand. */
const FREE = `(d.in_hand is null or not ${Claims.isAlive('d.in_hand')})`;

interface SummaryRow {
  id: string;
  name: string;
  created_at: number;
  by: string | null;
  state: SweepSummary['state'];
  waiting: string;
  done: string;
  failed: string;
  cancelled: string;
}

@Injectable()
export class SweepStore {
  constructor(@Inject(DATABASE) private readonly database: Database) {}

  async create(name: string, domains: readonly string[], person: string, at: Instant, database: Database): Promise<string> {
    const id = randomUUID();
    await database('sweeps').insert({ id, name, created_at: at, created_by: person, state: 'running' });
    await database.batchInsert(
      'sweep_domains',
      domains.map((domain, position) => ({ sweep_id: id, position, domain, state: 'waiting' })),
      1000,
    );
    return id;
  }

  async list(): Promise<SweepSummary[]> {
    const { rows } = await this.summaries('order by s.created_at desc limit 200', []);
    return rows.map(summaryOf);
  }

  async get(id: string): Promise<SweepView> {
    if (!isId(id)) throw notFound('sweep');
    const { rows } = await this.summaries('where s.id = ?', [id]);
    if (!rows[0]) throw notFound('sweep');
    const domains = await this.database('sweep_domains')
      .where({ sweep_id: id })
      .orderBy('position')
      .select<(Omit<SweepRow, 'surveyId' | 'doneAt'> & { survey_id: string | null; done_at: number | null })[]>(
        'domain',
        'state',
        'survey_id',
        'done_at',
        'problem',
        'gist',
      );
    return { ...summaryOf(rows[0]), rows: domains.map(({ survey_id, done_at, ...row }) => ({ ...row, surveyId: survey_id, doneAt: done_at })) };
  }

  /** Sweeps with something to do. */
  async unfinished(): Promise<string[]> {
    return (await this.database('sweeps').where({ state: 'running' }).select<{ id: string }[]>('id')).map((row) => row.id);
  }

  /** From one of the states `from` to another; false where it was in none of them. */
  async setState(id: string, from: readonly SweepSummary['state'][], to: SweepSummary['state'], database: Database = this.database): Promise<boolean> {
    return (
      (await database('sweeps')
        .where({ id })
        .whereIn('state', [...from])
        .update({ state: to })) > 0
    );
  }

  /** The next domain that no process which is alive has in hand; it is in the hand of `process` then. */
  async claim(sweep: string, process: number): Promise<{ position: number; domain: string } | undefined> {
    const { rows } = await this.database.raw<{ rows: { position: number; domain: string }[] }>(
      `update sweep_domains set in_hand = ? where (sweep_id, position) =
         (select d.sweep_id, d.position from sweep_domains d join sweeps s on s.id = d.sweep_id
           where d.sweep_id = ? and d.state = 'waiting' and s.state = 'running' and ${FREE}
           order by d.position limit 1 for update of d skip locked)
       returning position, domain`,
      [process, sweep],
    );
    return rows[0];
  }

  /** Leaves it to others as it was. */
  async release(sweep: string, position: number, process: number): Promise<void> {
    await this.database('sweep_domains').where({ sweep_id: sweep, position, in_hand: process }).update({ in_hand: null });
  }

  /** Whether `process` still has it in hand; it keeps it until the transaction ends. */
  async holds(sweep: string, position: number, process: number, transaction: Database): Promise<boolean> {
    const mine = { sweep_id: sweep, position, in_hand: process, state: 'waiting' };
    return (await transaction('sweep_domains').where(mine).forUpdate().first('position')) !== undefined;
  }

  /** What came of a domain that `process` has in hand; nothing is written where it has not any more. */
  async finish(
    sweep: string,
    position: number,
    process: number,
    row: Partial<Record<'state' | 'survey_id' | 'problem' | 'gist', string | null>> & { done_at: Instant },
    database: Database,
  ): Promise<void> {
    const mine = { sweep_id: sweep, position, in_hand: process, state: 'waiting' };
    await database('sweep_domains')
      .where(mine)
      .update({ ...row, in_hand: null });
  }

  /** Ends a sweep of which nothing is left; true where this call did. */
  async close(id: string): Promise<boolean> {
    const { rows } = await this.database.raw<{ rows: unknown[] }>(
      `update sweeps set state = 'done' where id = ? and state = 'running'
          and not exists (select 1 from sweep_domains where sweep_id = sweeps.id and state = 'waiting') returning id`,
      [id],
    );
    return rows.length > 0;
  }

  /** A domain that somebody has in hand is left to him. */
  async cancelWaiting(id: string): Promise<void> {
    await this.database.raw(`update sweep_domains d set state = 'cancelled' where d.sweep_id = ? and d.state = 'waiting' and ${FREE}`, [id]);
  }

  async retryFailed(id: string, database: Database): Promise<number> {
    return database('sweep_domains')
      .where({ sweep_id: id })
      .whereIn('state', ['failed', 'cancelled'])
      .update({ state: 'waiting', problem: null, done_at: null });
  }

  private summaries(clause: string, values: readonly string[]): Promise<{ rows: SummaryRow[] }> {
    const counted = ['waiting', 'done', 'failed', 'cancelled']
      .map((state) => `(select count(*) from sweep_domains d where d.sweep_id = s.id and d.state = '${state}') as ${state}`)
      .join(', ');
    return this.database.raw(
      `select s.id, s.name, s.created_at, p.name as by, s.state, ${counted} from sweeps s left join people p on p.id = s.created_by ${clause}`,
      [...values],
    );
  }
}

function summaryOf(row: SummaryRow): SweepSummary {
  const { id, name, by, state } = row;
  return {
    id,
    name,
    by,
    state,
    createdAt: row.created_at,
    waiting: Number(row.waiting),
    done: Number(row.done),
    failed: Number(row.failed),
    cancelled: Number(row.cancelled),
  };
}
