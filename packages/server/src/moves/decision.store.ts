import { Inject, Injectable } from '@nestjs/common';
import { Knex } from 'knex';
import { Decision, DecisionKind, Instant } from '@wanderon/core';
import { DATABASE, Database } from '../db/database';
import { DecisionRow } from './move.rows';

export interface NewDecision {
  readonly kind: DecisionKind;
  readonly subject?: string;
  readonly value?: unknown;
  readonly person: string;
  readonly undoes?: number;
}

/** What people decided; rows are added and never changed. */
@Injectable()
export class DecisionStore {
  constructor(@Inject(DATABASE) private readonly database: Database) {}

  /** A decision with its word in the trail, in one statement. */
  async add(leg: string, at: Instant, decision: NewDecision, transaction: Database, event: Readonly<Record<string, unknown>>): Promise<number> {
    const made = await this.added(leg, at, decision, transaction, event).select<{ id: string }[]>('made.id').from('made');
    return Number(made[0]!.id);
  }

  /** The same as the beginning of a statement that does more; the decision is `made` in it. */
  added(
    leg: string,
    at: Instant,
    { kind, subject = '', value, person, undoes }: NewDecision,
    transaction: Database,
    event: Readonly<Record<string, unknown>>,
  ): Knex.QueryBuilder {
    const row = { leg_id: leg, kind, subject, value: value === undefined ? null : JSON.stringify(value), person_id: person, at, undoes: undoes ?? null };
    return transaction.with('made', transaction('decisions').insert(row).returning('id')).with('told', transaction('events').insert(event).returning('id'));
  }

  /** As `ofLeg`, without what was decided: enough to say what stands. */
  async withoutValues(leg: string, database: Database): Promise<Decision[]> {
    const rows = await database<DecisionRow>('decisions').where({ leg_id: leg }).orderBy('id').select('id', 'kind', 'subject', 'person_id', 'at', 'undoes');
    return rows.map((row) => toDecision({ ...row, value: null }));
  }

  async get(id: number, database: Database): Promise<Decision> {
    return toDecision(
      (await database<DecisionRow>('decisions')
        .where({ id: String(id) })
        .first('*'))!,
    );
  }

  async ofLeg(leg: string, database: Database = this.database): Promise<Decision[]> {
    const rows = await database<DecisionRow>('decisions').where({ leg_id: leg }).orderBy('id').select('*');
    return rows.map(toDecision);
  }
}

function toDecision(row: Omit<DecisionRow, 'leg_id'>): Decision {
  const { id, kind, subject, value, person_id: person, at, undoes } = row;
  return { id: Number(id), kind, subject, value, person, at, undoes: undoes === null ? null : Number(undoes) };
}
