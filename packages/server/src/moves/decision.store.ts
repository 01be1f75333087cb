import { Inject, Injectable } from '@nestjs/common';
import { Knex } from 'knex';
import { Decision, DecisionKind, Instant } from '@wanderon/core';
import { DATABASE, Database } from '../db/database';
import { DecisionRow } from './move.rows';

export interface NewDecision {
  readonly kind: DecisionKind;
  readonly subject?: string;
  readonly value?: unknown;
  /** Null: somebody without an account. */
  readonly person: string | null;
  readonly undoes?: number;
}

/** Decisions that are looked at first: what was done last is what is taken back. */
const NEWEST = 50;

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

  /**
   * What `find` finds among the decisions of a leg from the newest backwards; all of them are read only where the newest do not
   * tell: where some of those that count point further back.
   */
  async last(leg: string, find: (decisions: readonly Decision[]) => Decision | undefined, database: Database): Promise<Decision | undefined> {
    const of = database<DecisionRow>('decisions').where({ leg_id: leg });
    const newest = (await of.clone().orderBy('id', 'desc').limit(NEWEST).select('*')).reverse().map(toDecision);
    const found = find(newest);
    const known = new Set(newest.map((one) => one.id));
    const tells = found && newest.slice(newest.indexOf(found)).every((one) => one.undoes === null || known.has(one.undoes));
    return newest.length < NEWEST || tells ? found : find(await this.ofLeg(leg, database));
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
