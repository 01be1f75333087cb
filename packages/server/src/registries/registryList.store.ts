import { Inject, Injectable } from '@nestjs/common';
import { RdapBootstrap } from '@wanderon/net';
import { DATABASE, Database } from '../db/database';

/** A list of registration data services, as it was fetched last. */
export interface KeptList {
  /** Null where it never came. */
  readonly body: RdapBootstrap | null;
  readonly fetchedAt: number | null;
  readonly triedAt: number;
  /** Why the last try failed. */
  readonly problem: string | null;
}

@Injectable()
export class RegistryListStore {
  constructor(@Inject(DATABASE) private readonly database: Database) {}

  async get(address: string): Promise<KeptList | undefined> {
    const row = await this.database('registry_lists')
      .where({ address })
      .first<{ body: RdapBootstrap | null; fetched_at: number | null; tried_at: number; problem: string | null } | undefined>();
    return row && { body: row.body, fetchedAt: row.fetched_at, triedAt: row.tried_at, problem: row.problem };
  }

  /** Another process may have fetched it at the same time: the later one stays. */
  async put(address: string, { body, fetchedAt, triedAt, problem }: KeptList): Promise<void> {
    const row = { address, body: body && JSON.stringify(body), fetched_at: fetchedAt, tried_at: triedAt, problem };
    await this.database('registry_lists').insert(row).onConflict('address').merge();
  }
}
