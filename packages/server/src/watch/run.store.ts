import { Inject, Injectable } from '@nestjs/common';
import { Instant, Verdict } from '@wanderon/core';
import { DATABASE, Database } from '../db/database';

export interface Look {
  readonly subject: string;
  readonly owner: string;
  readonly type: string;
  readonly verdict: Verdict;
  readonly rcode: string;
  readonly answer: readonly string[];
  readonly remainingTtl: number | null;
  readonly silent: boolean;
}

export interface RunRow {
  id: string;
  subject: string;
  owner: string;
  type: string;
  verdict: Verdict;
  rcode: string;
  answer: string[];
  first_seen: Instant;
  last_seen: Instant;
  count: string;
  remaining_ttl: number | null;
  silent: boolean;
}

/** Observations as runs: equal answers one after the other are one row that is drawn out. */
@Injectable()
export class RunStore {
  constructor(@Inject(DATABASE) private readonly database: Database) {}

  async add(leg: string, at: Instant, looks: readonly Look[]): Promise<void> {
    await this.database.transaction(async (transaction) => {
      const latest = await this.latest(leg, transaction);
      const byKey = new Map(latest.map((run) => [runKey(run), run]));
      for (const look of looks) {
        const run = byKey.get(runKey(look));
        const same =
          run &&
          run.verdict === look.verdict &&
          run.rcode === look.rcode &&
          run.silent === look.silent &&
          JSON.stringify(run.answer) === JSON.stringify(look.answer);
        if (same)
          await transaction('runs')
            .where({ id: run.id })
            .update({ last_seen: at, count: transaction.raw('count + 1'), remaining_ttl: look.remainingTtl });
        else
          await transaction('runs').insert({
            leg_id: leg,
            subject: look.subject,
            owner: look.owner,
            type: look.type,
            verdict: look.verdict,
            rcode: look.rcode,
            answer: JSON.stringify(look.answer),
            first_seen: at,
            last_seen: at,
            count: 1,
            remaining_ttl: look.remainingTtl,
            silent: look.silent,
          });
      }
    });
  }

  /** The last run of each lookout and question. */
  async latest(leg: string, database: Database = this.database): Promise<RunRow[]> {
    return database('runs')
      .where({ leg_id: leg })
      .distinctOn('subject', 'owner', 'type')
      .orderBy(['subject', 'owner', 'type', { column: 'id', order: 'desc' }])
      .select<RunRow[]>('*');
  }

  async all(leg: string): Promise<RunRow[]> {
    return this.database('runs').where({ leg_id: leg }).orderBy('id').limit(20_000).select<RunRow[]>('*');
  }
}

function runKey(run: { readonly subject: string; readonly owner: string; readonly type: string }): string {
  return `${run.subject}\n${run.owner}\n${run.type}`;
}
