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

/** What people decided; rows are added and never changed. */
@Injectable()
export class DecisionStore {
  constructor(@Inject(DATABASE) private readonly database: Database) {}

  /** A decision with its word in the trail, in one statement. */
  async add(leg: string, at: Instant, decision: NewDecision, transaction: Database, event: Readonly<Record<string, unknown>>): Promise<number> {
    const made = await transaction
      .with(
        'made',
        transaction('decisions')
          .insert(rowOf(leg, at, decision))
          .returning('id'),
      )
      .with('told', transaction('events').insert(event).returning('id'))
      .select<{ id: string }[]>('made.id')
      .from('made');
    return Number(made[0]!.id);
  }

  /** The beginning of a statement that writes both only where `condition` gives a row; the decision is `made` in it. */
  addedIf(
    condition: Knex.QueryBuilder,
    leg: string,
    at: Instant,
    decision: NewDecision,
    database: Database,
    event: Readonly<Record<string, string | number | null>>,
  ): Knex.QueryBuilder {
    return database
      .with('condition', condition)
      .with('made', insertedIf('condition', 'decisions', rowOf(leg, at, decision), database))
      .with('told', insertedIf('condition', 'events', event, database));
  }

  async ofLeg(leg: string, database: Database = this.database): Promise<Decision[]> {
    const rows = await database<DecisionRow>('decisions').where({ leg_id: leg }).orderBy('id').select('*');
    return rows.map(toDecision);
  }
}

function rowOf(leg: string, at: Instant, { kind, subject = '', value, person, undoes }: NewDecision): Readonly<Record<string, string | number | null>> {
  return { leg_id: leg, kind, subject, value: value === undefined ? null : JSON.stringify(value), person_id: person, at, undoes: undoes ?? null };
}

/** One row for a table, written where a part of the statement gave a row. */
function insertedIf(part: string, table: string, row: Readonly<Record<string, string | number | null>>, database: Database): Knex.Raw {
  const columns = Object.keys(row);
  const [names, values] = ['??', '?'].map((mark) => columns.map(() => mark).join(', '));
  return database.raw(`insert into ?? (${names}) select ${values} where exists (select from ??) returning id`, [
    table,
    ...columns,
    ...Object.values(row),
    part,
  ]);
}

function toDecision(row: Omit<DecisionRow, 'leg_id'>): Decision {
  const { id, kind, subject, value, person_id: person, at, undoes } = row;
  return { id: Number(id), kind, subject, value, person, at, undoes: undoes === null ? null : Number(undoes) };
}
