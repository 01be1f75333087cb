import { randomUUID } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { Host, HostInput } from '@wanderon/contract';
import { HostKnowledge, Name, TsigAlgorithm, TsigKey, fromBase64 } from '@wanderon/core';
import { DATABASE, Database } from '../db/database';
import { NotNow, notFound } from '../refusals';
import { Sealer } from './sealer';

interface HostRow {
  id: string;
  name: string;
  role: Host['role'];
  nameservers: string[];
  addresses: string[];
  fronts: string[];
  entry: Host['entry'];
  alias_target: string | null;
  requires: Host['requires'];
  update_address: string | null;
  note: string;
  key_name: string | null;
  key_algorithm: TsigAlgorithm | null;
  key_secret: string | null;
}

@Injectable()
export class HostStore {
  constructor(
    @Inject(DATABASE) private readonly database: Database,
    private readonly sealer: Sealer,
  ) {}

  async list(database: Database = this.database): Promise<Host[]> {
    return (await database<HostRow>('hosts').orderBy(['role', 'name'])).map(toHost);
  }

  async get(id: string): Promise<Host> {
    const row = await this.row(id);
    if (!row) throw notFound('host');
    return toHost(row);
  }

  /** The key of a DNS host, opened; it stays on the server. */
  async keyOf(id: string | null): Promise<TsigKey | undefined> {
    const row = id ? await this.row(id) : undefined;
    if (!row?.key_secret || !row.key_name || !row.key_algorithm) return undefined;
    const secret = await this.database<{ id: string; sealed: Buffer }>('secrets').where({ id: row.key_secret }).first();
    return { name: Name.parse(row.key_name), algorithm: row.key_algorithm, secret: this.sealer.open(secret!.sealed) };
  }

  async save(id: string | undefined, input: HostInput): Promise<Host> {
    const existing = id === undefined ? undefined : await this.row(id);
    if (id !== undefined && !existing) throw notFound('host');
    const taken = await this.database<HostRow>('hosts').where({ name: input.name, role: input.role }).first('id');
    if (taken && taken.id !== id)
      throw new NotNow(`There is a host named ${input.name} in this role already.`, { field: 'name', kept: 'Nothing was changed.' });
    return this.database.transaction(async (transaction) => {
      let key: Partial<HostRow> = {};
      if (input.key === null) key = { key_name: null, key_algorithm: null, key_secret: null };
      else if (input.key) {
        const secret = randomUUID();
        await transaction('secrets').insert({ id: secret, kind: 'tsig', sealed: this.sealer.seal(fromBase64(input.key.secret)) });
        key = { key_name: input.key.name, key_algorithm: input.key.algorithm, key_secret: secret };
      }
      const row = {
        name: input.name,
        role: input.role,
        nameservers: JSON.stringify(input.nameservers),
        addresses: JSON.stringify(input.addresses),
        fronts: JSON.stringify(input.fronts ?? []),
        entry: input.entry ? JSON.stringify(input.entry) : null,
        alias_target: input.aliasTarget,
        requires: JSON.stringify(input.requires),
        update_address: input.updateAddress,
        note: input.note,
        ...key,
      };
      const [saved] = existing
        ? await transaction('hosts').where({ id }).update(row).returning<HostRow[]>('*')
        : await transaction('hosts')
            .insert({ id: randomUUID(), ...row })
            .returning<HostRow[]>('*');
      if (existing?.key_secret && input.key !== undefined) await transaction('secrets').where({ id: existing.key_secret }).delete();
      return toHost(saved!);
    });
  }

  private row(id: string): Promise<HostRow | undefined> {
    if (!/^[0-9a-f-]{36}$/.test(id)) return Promise.resolve(undefined);
    return this.database<HostRow>('hosts').where({ id }).first();
  }
}

export function knowledgeOf(host: Host): HostKnowledge {
  return { name: host.name, nameservers: host.nameservers, addresses: host.addresses, aliasTarget: host.aliasTarget ?? undefined, requires: host.requires };
}

function toHost(row: HostRow): Host {
  return {
    id: row.id,
    name: row.name,
    role: row.role,
    nameservers: row.nameservers,
    addresses: row.addresses,
    fronts: row.fronts,
    entry: row.entry,
    aliasTarget: row.alias_target,
    requires: row.requires,
    updateAddress: row.update_address,
    note: row.note,
    keyName: row.key_name,
  };
}
