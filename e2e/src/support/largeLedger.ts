import { randomUUID } from 'node:crypto';
import { Knex } from 'knex';

export interface LargeLedger {
  readonly move: string;
  readonly leg: string;
  /** Rows in their order; in the last one an address stands beside the alias of row `ALIAS`, a remark on both. */
  readonly rows: readonly { readonly id: string; readonly owner: string }[];
}

export const ALIAS = 700;

/** A move of seed-library.example whose hosts are chosen, with `count` rows and one more. */
export async function insertLedger(database: Knex, count: number): Promise<LargeLedger> {
  const leg = randomUUID();
  const rows = Array.from({ length: count + 1 }, (_, position) => {
    const owner = `name-${position === count ? ALIAS : position}.seed-library.example.`;
    const alias = position === ALIAS;
    const set = { owner, type: alias ? 'CNAME' : 'A', ttl: 3600, data: [alias ? 'Name-1.seed-library.example.' : '192.0.2.7'] };
    return {
      id: randomUUID(),
      owner,
      type: set.type,
      ruling: 'carry',
      found: set,
      planned: 'found',
      reason: '',
    };
  });
  const [domain, move, host] = [randomUUID(), randomUUID(), randomUUID()];
  const scope = JSON.stringify({ kind: 'whole' });
  await database('domains').insert({ id: domain, name: 'seed-library.example' });
  await database('hosts').insert({
    ...{ id: host, name: 'New DNS', role: 'dns', nameservers: '["ns1.quillmere.example."]', addresses: '[]', requires: '[]', note: '' },
  });
  await database('moves').insert({ id: move, domain_id: domain, scope, state: 'open', created_at: 1e9, wake_at: null });
  await database('legs').insert({
    ...{ id: leg, move_id: move, position: 0, kind: 'delegation', scope, new_dns_host: host },
    ...{ old_nameservers: '["ns1.oldquay.example."]', new_nameservers: '["ns1.quillmere.example."]' },
  });
  await database('proposals').insert({ leg_id: leg, id: randomUUID(), rows: JSON.stringify(rows) });
  return { move, leg, rows };
}
