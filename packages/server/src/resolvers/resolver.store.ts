import { randomUUID } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { NewResolver } from '@wanderon/contract';
import { DATABASE, Database } from '../db/database';
import { isId } from '../db/ids';
import { Lookout } from '../network/lookout';

interface ResolverRow {
  id: string;
  name: string;
  address: string;
  over: 'udp' | 'tcp' | 'tls' | 'https';
  tls_name: string;
  path: string;
  stands: string;
  note: string;
  position: number;
}

export type AddedResolver = Lookout & { readonly id: string };

/** Rows of the resolvers that people added. */
@Injectable()
export class ResolverStore {
  constructor(@Inject(DATABASE) private readonly database: Database) {}

  async list(database: Database = this.database): Promise<AddedResolver[]> {
    const rows = await database<ResolverRow>('resolvers').orderBy(['position', 'name']);
    return rows.map(({ id, name, address, over, tls_name: tlsName, path, stands, note }) => ({ id, name, address, over, tlsName, path, stands, note }));
  }

  /** In its own transaction with what is told of it. */
  async add({ name, address, over, tlsName, path, stands, note }: NewResolver, told: (transaction: Database) => Promise<void>): Promise<void> {
    await this.database.transaction(async (transaction) => {
      const last = await transaction('resolvers').max<{ max: number | null }[]>('position as max');
      const row: ResolverRow = { id: randomUUID(), name, address, over, tls_name: tlsName, path, stands, note, position: (last[0]?.max ?? 0) + 1 };
      await transaction('resolvers').insert(row);
      await told(transaction);
    });
  }

  /** The name of the one that was taken out; undefined where there is none. */
  async remove(id: string, told: (name: string, transaction: Database) => Promise<void>): Promise<string | undefined> {
    if (!isId(id)) return undefined;
    return this.database.transaction(async (transaction) => {
      const [row] = await transaction<ResolverRow>('resolvers').where({ id }).delete().returning('name');
      if (row) await told(row.name, transaction);
      return row?.name;
    });
  }

  async order(ids: readonly string[], told: (transaction: Database) => Promise<void>): Promise<void> {
    await this.database.transaction(async (transaction) => {
      for (const [position, id] of ids.entries()) await transaction<ResolverRow>('resolvers').where({ id }).update({ position });
      await told(transaction);
    });
  }
}
