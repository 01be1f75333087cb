import { randomUUID } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { Instant, Ruling, STEP_KINDS, Scope, StepKind } from '@wanderon/core';
import { DATABASE, Database } from '../db/database';
import { notFound } from '../problem';
import { Facts, Leg, Move, RulingRow, ServedState, StepRow } from './leg';

/** Moves, their legs, steps and rulings as they stand in the database. */
@Injectable()
export class MoveStore {
  constructor(@Inject(DATABASE) readonly database: Database) {}

  async list(): Promise<Move[]> {
    return this.moves().orderBy([
      { column: 'moves.state', order: 'desc' },
      { column: 'moves.created_at', order: 'desc' },
    ]);
  }

  async get(id: string): Promise<Move> {
    const move = /^[0-9a-f-]{36}$/.test(id) ? await this.moves().where('moves.id', id).first() : undefined;
    if (!move) throw notFound('move');
    return move;
  }

  async openOf(domain: string): Promise<Move[]> {
    return this.moves().where({ 'domains.name': domain, 'moves.state': 'open' });
  }

  async legs(move: string): Promise<Leg[]> {
    return this.database<Leg>('legs').where({ move_id: move }).orderBy('position');
  }

  async leg(id: string): Promise<Leg> {
    return (await this.database<Leg>('legs').where({ id }).first())!;
  }

  async steps(leg: string): Promise<StepRow[]> {
    const rows = await this.database<StepRow & { leg_id: string }>('steps').where({ leg_id: leg });
    return STEP_KINDS.map((kind) => rows.find((row) => row.kind === kind)!);
  }

  async rulings(leg: string): Promise<RulingRow[]> {
    return this.database<RulingRow>('rulings').where({ leg_id: leg }).orderBy('position');
  }

  /** Throws nothing for a domain that is known already: it is taken as it is. */
  async create(
    input: { domain: string; client: string | undefined; scope: Scope; person: string; at: Instant; legKind: Leg['kind'] },
    database: Database,
  ): Promise<string> {
    await database('domains').insert({ id: randomUUID(), name: input.domain }).onConflict('name').ignore();
    const domain = await database<{ id: string; name: string }>('domains').where({ name: input.domain }).forUpdate().first('id');
    const id = randomUUID();
    const leg = randomUUID();
    await database('moves').insert({
      id,
      domain_id: domain!.id,
      scope: JSON.stringify(input.scope),
      state: 'open',
      created_at: input.at,
      created_by: input.person,
      wake_at: input.at,
    });
    await database('legs').insert({
      id: leg,
      move_id: id,
      position: 0,
      kind: input.legKind,
      scope: JSON.stringify(input.scope),
      old_nameservers: '[]',
      new_nameservers: '[]',
      facts: '{}',
    });
    await database('steps').insert(STEP_KINDS.map((kind) => ({ leg_id: leg, kind, state: 'waiting' })));
    return id;
  }

  async setStep(leg: string, kind: StepKind, change: Partial<StepRow>, database: Database = this.database): Promise<void> {
    await database('steps').where({ leg_id: leg, kind }).update(change);
  }

  /** Merges into the facts of a leg, key by key. */
  async addFacts(leg: string, facts: Facts, database: Database = this.database): Promise<void> {
    await database('legs')
      .where({ id: leg })
      .update({ facts: database.raw('facts || ?::jsonb', [JSON.stringify(facts)]) });
  }

  async setServed(leg: string, served: ServedState): Promise<void> {
    await this.database('legs')
      .where({ id: leg })
      .update({ served: JSON.stringify(served) });
  }

  async replaceRulings(leg: string, rulings: readonly Ruling[], database: Database): Promise<void> {
    await database('rulings').where({ leg_id: leg }).delete();
    await database('ruling_changes').where({ leg_id: leg }).update({ undone: true });
    const rows = rulings.map((ruling, position) => ({
      id: randomUUID(),
      leg_id: leg,
      position,
      owner: ruling.owner,
      type: ruling.type,
      ruling: ruling.ruling,
      found: ruling.found ? JSON.stringify(ruling.found) : null,
      planned: ruling.planned ? JSON.stringify(ruling.planned) : null,
      reason: ruling.reason,
    }));
    if (rows.length > 0) await database.batchInsert('rulings', rows, 200);
  }

  async wake(move: string, at: Instant | null, database: Database = this.database): Promise<void> {
    await database('moves').where({ id: move }).update({ wake_at: at });
  }

  private moves() {
    return this.database('moves')
      .join('domains', 'domains.id', 'moves.domain_id')
      .leftJoin('clients', 'clients.id', 'domains.client_id')
      .select<Move[]>('moves.*', 'domains.name as domain', 'clients.name as client');
  }
}
