import { Inject, Injectable } from '@nestjs/common';
import { RRsetText } from '@wanderon/core';
import { DATABASE, Database } from '../db/database';

/** What a person has in hand of a zone: its names are asked for, and what is served is held against it. */
export interface InHandGiven {
  readonly names: readonly string[];
  readonly sets: readonly RRsetText[];
  /** Of a zone file that was read whole. */
  readonly serial?: number | undefined;
  /** Servers that have the zone, by name or address. */
  readonly servers: readonly string[];
}

/** The same with its sets as they are written. */
export interface InHandKept extends Omit<InHandGiven, 'sets'> {
  readonly sets: string;
}

/** What people gave is kept as it was given; the latest counts. */
@Injectable()
export class InHandStore {
  constructor(@Inject(DATABASE) private readonly database: Database) {}

  /** Gives its number, by which the trail names it. */
  async add(leg: string, { names, sets, serial, servers }: InHandKept, database: Database): Promise<number> {
    const values = { leg_id: leg, names: JSON.stringify(names), sets, serial: serial ?? null, servers: JSON.stringify(servers) };
    const [row] = await database('in_hand').insert(values).returning<{ id: string }[]>('id');
    return Number(row!.id);
  }

  /** Nothing where nothing was given yet. */
  async latest(leg: string, database: Database = this.database): Promise<InHandGiven & { readonly id: number | null }> {
    const row = await database('in_hand')
      .where({ leg_id: leg })
      .orderBy('id', 'desc')
      .first<{ id: string; names: string[]; sets: RRsetText[]; serial: string | null; servers: string[] } | undefined>();
    if (!row) return { id: null, names: [], sets: [], servers: [] };
    return { id: Number(row.id), names: row.names, sets: row.sets, servers: row.servers, serial: row.serial === null ? undefined : Number(row.serial) };
  }
}
