import { randomUUID } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { Knex } from 'knex';
import { Instant, LedgerRow, Ruling, Scope } from '@wanderon/core';
import { DATABASE, Database } from '../db/database';
import { isId } from '../db/ids';
import { Recent } from '../db/recent';
import { notFound } from '../refusals';
import { LegRow, MoveRow, ProposalRow, ProposedRow } from './move.rows';

/** Rows of ledgers that are held, so that a zone of thousands is not read for each look and act. */
const HELD = 100_000;

/** Every column but the summary, which is a page's. */
const MOVE_COLUMNS = ['id', 'domain_id', 'scope', 'state', 'note', 'created_at', 'closed_at', 'wake_at', 'version', 'summarised'].map(
  (column) => `moves.${column}`,
);

/** Moves, their legs and proposed rulings as they stand in the database. */
@Injectable()
export class MoveStore {
  private readonly proposed = new Recent<readonly LedgerRow[]>(HELD);
  /** Legs never change their move. */
  private readonly moveByLeg = new Recent<string>(HELD);

  constructor(@Inject(DATABASE) readonly database: Database) {}

  /** Throws where there is no such move. `lock`: nobody else writes it until the transaction ends. */
  async get(id: string, database: Database = this.database, lock = false): Promise<MoveRow> {
    return (await this.getWith(id, database.raw(`''`), database, lock)).move;
  }

  /** The same with what `also` tells, a part of the query that gives one text. */
  async getWith(id: string, also: Knex.Raw<string>, database: Database, lock = false): Promise<{ readonly move: MoveRow; readonly also: string }> {
    if (!isId(id)) throw notFound('move');
    const query = this.moves(database)
      .where('moves.id', id)
      .select(database.raw('? as also', [also]))
      .first<(MoveRow & { also: string }) | undefined>();
    const found = await (lock ? query.forUpdate('moves') : query);
    if (!found) throw notFound('move');
    const { also: told, ...move } = found;
    return { move, also: told };
  }

  /** The version of a move; throws where there is none. */
  async versionOf(id: string): Promise<number> {
    const row = isId(id) ? await this.database<MoveRow>('moves').where({ id }).first('version') : undefined;
    if (!row) throw notFound('move');
    return row.version;
  }

  /** The move of a leg; throws where there is no such leg. */
  async moveOf(leg: string): Promise<string> {
    const known = this.moveByLeg.get(leg);
    if (known) return known;
    const row = isId(leg) ? await this.database<LegRow>('legs').where({ id: leg }).first('move_id') : undefined;
    if (!row) throw notFound('leg');
    this.moveByLeg.set(leg, row.move_id, 1);
    return row.move_id;
  }

  /** The domain that a leg is about, absolute. Throws a NotFound. */
  async domainOf(leg: string): Promise<string> {
    return `${(await this.get(await this.moveOf(leg))).domain}.`;
  }

  /** Names of other domains, those of the same client first, then those that were begun last. */
  async otherDomains(domain: string, most: number): Promise<string[]> {
    const client = this.database('domains').where({ id: domain }).select('client_id');
    const rows = await this.database('domains')
      .whereNot('domains.id', domain)
      .leftJoin('moves', 'moves.domain_id', 'domains.id')
      .groupBy('domains.id')
      .orderByRaw('(domains.client_id = (?)) desc nulls last, max(moves.created_at) desc nulls last', [client])
      .limit(most)
      .select<{ name: string }[]>('domains.name');
    return rows.map((row) => row.name);
  }

  async openOf(domain: string, database: Database = this.database): Promise<MoveRow[]> {
    return this.moves(database).where({ 'domains.name': domain, 'moves.state': 'open' });
  }

  async legs(move: string, database: Database = this.database): Promise<LegRow[]> {
    return database<LegRow>('legs').where({ move_id: move }).orderBy('position');
  }

  /** Rulings as they were proposed, as rows of the ledger that nobody decided. */
  async rulings(leg: string, database: Database = this.database): Promise<readonly LedgerRow[]> {
    const made = await database<ProposalRow>('proposals').where({ leg_id: leg }).first('id');
    if (!made) return [];
    const held = this.proposed.get(made.id) ?? ledgerRows((await database<ProposalRow>('proposals').where({ leg_id: leg }).first('rows'))!.rows);
    this.proposed.set(made.id, held, held.length);
    return held;
  }

  /** A domain that is known already is taken as it is. */
  async create(input: { domain: string; scope: Scope; person: string; at: Instant; legKind: LegRow['kind'] }, database: Database): Promise<string> {
    await database('domains').insert({ id: randomUUID(), name: input.domain }).onConflict('name').ignore();
    const domain = await database<{ id: string; name: string }>('domains').where({ name: input.domain }).forUpdate().first('id');
    const id = randomUUID();
    const scope = JSON.stringify(input.scope);
    await database('moves').insert({ id, domain_id: domain!.id, scope, state: 'open', created_at: input.at, created_by: input.person, wake_at: input.at });
    await database('legs').insert({ id: randomUUID(), move_id: id, position: 0, kind: input.legKind, scope, old_nameservers: '[]', new_nameservers: '[]' });
    return id;
  }

  /** One more leg of a move, after those that there are. */
  async addLeg(move: string, leg: Pick<LegRow, 'kind' | 'scope'> & Partial<LegRow>, database: Database): Promise<string> {
    const last = await database<LegRow>('legs').where({ move_id: move }).max<{ max: number }>('position as max').first();
    const id = randomUUID();
    const { kind, scope, ...more } = leg;
    const base = { id, move_id: move, position: (last?.max ?? -1) + 1, kind, scope: JSON.stringify(scope), old_nameservers: '[]', new_nameservers: '[]' };
    await database('legs').insert(base);
    if (Object.keys(more).length > 0) await this.updateLeg(id, more, database);
    return id;
  }

  async updateLeg(leg: string, change: Partial<LegRow>, database: Database): Promise<void> {
    const json = ['next', 'former', 'web', 'given', 'old_nameservers', 'new_nameservers', 'old_servers', 'new_servers', 'fronted'];
    const values = Object.entries(change).map(([column, value]) => [column, json.includes(column) && value !== null ? JSON.stringify(value) : value] as const);
    await database('legs').where({ id: leg }).update(Object.fromEntries(values));
  }

  /** What is proposed for a leg from now on; a row keeps the id by which decisions call it. */
  async replaceRulings(leg: string, rulings: readonly (Ruling & { readonly id?: string | undefined })[], database: Database): Promise<void> {
    const id = randomUUID();
    const rows = rulings.map(({ id: known, owner, type, ruling, found, planned, reason }): ProposedRow => ({
      ...{ id: known ?? randomUUID(), owner, type, ruling, reason },
      found: found ?? null,
      planned: found && planned === found ? 'found' : (planned ?? null),
    }));
    await database('proposals')
      .insert({ leg_id: leg, id, rows: JSON.stringify(rows) })
      .onConflict('leg_id')
      .merge();
    // Should the transaction fail, nobody hears of this id.
    this.proposed.set(id, ledgerRows(rows), rows.length);
  }

  async wake(move: string, at: Instant | null, database: Database = this.database): Promise<void> {
    await database('moves').where({ id: move }).update({ wake_at: at });
  }

  private moves(database: Database) {
    return database('moves')
      .join('domains', 'domains.id', 'moves.domain_id')
      .leftJoin('clients', 'clients.id', 'domains.client_id')
      .select<MoveRow[]>(...MOVE_COLUMNS, 'domains.name as domain', 'clients.name as client');
  }
}

function ledgerRows(rows: readonly ProposedRow[]): readonly LedgerRow[] {
  return rows.map(({ id, owner, type, ruling, found, planned, reason }) => {
    const before = found ?? undefined;
    return { id, owner, type, ruling, found: before, planned: planned === 'found' ? before : (planned ?? undefined), reason, decidedBy: null };
  });
}
