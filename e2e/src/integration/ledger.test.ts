import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { LedgerPage, joinedLedger } from '@wanderon/contract';
import knex, { Knex } from 'knex';
import { Api, ApiError } from '../../../command/src/api';
import { ROOT } from '../../../command/src/processes';
import { ServerUnderTest } from '../support/world';

const ROWS = 1203;

/** A ledger of more rows than a page holds: read in parts, each anew only where it changed. */
describe('a large ledger', () => {
  const server = new ServerUnderTest({ WANDERON_ROOT_HINTS: join(ROOT, 'e2e/corpus/hints') });
  const leg = randomUUID();
  const rows = Array.from({ length: ROWS }, (_, position) => {
    const owner = `name-${position}.seed-library.example.`;
    const set = { owner, type: position === 700 ? 'CNAME' : 'A', ttl: 3600, data: [position === 700 ? 'Name-1.seed-library.example.' : '192.0.2.7'] };
    return {
      id: randomUUID(),
      leg_id: leg,
      position,
      owner,
      type: set.type,
      ruling: 'carry',
      found: JSON.stringify(set),
      planned: JSON.stringify(set),
      reason: '',
    };
  });
  // An address stands beside the alias: a remark on both, far from the first page.
  rows.push({ ...rows[0]!, id: randomUUID(), position: ROWS, owner: rows[700]!.owner });
  let database: Knex;
  let api: Api;
  const page = (query: string): Promise<LedgerPage> => api.call<LedgerPage>('GET', `/api/legs/${leg}/ledger${query}`);
  const pages = async (limit: number): Promise<LedgerPage[]> => {
    const all = [await page(`?limit=${limit}`)];
    for (let next = all[0]!.next; next !== null; next = all.at(-1)!.next) all.push(await page(`?limit=${limit}&after=${next}`));
    return all;
  };

  beforeAll(async () => {
    await server.open();
    api = await server.signIn('admin');
    database = knex({ client: 'pg', connection: server.database });
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
    await database.batchInsert('rulings', rows, 300);
  });
  afterAll(async () => {
    await database.destroy();
    await server.close();
  });

  it('is whole when its pages are put together, however long they are', async () => {
    const [whole] = await pages(2000);
    expect(whole).toMatchObject({ total: ROWS + 1, next: null });
    expect(whole!.rulings.map((one) => one.id)).toEqual(rows.map((row) => row.id));
    const beside = whole!.remarks.filter((one) => one.owner === rows[700]!.owner);
    expect(beside.length).toBeGreaterThan(0);
    const parts = await pages(100);
    expect(parts).toHaveLength(13);
    const joined = joinedLedger(parts);
    expect(joined.rulings).toEqual(whole!.rulings);
    const texts = (all: LedgerPage['remarks']): string[] => all.map((one) => `${one.owner} ${one.type} ${one.code}`).sort();
    expect(texts(joined.remarks)).toEqual(texts(whole!.remarks));
    expect(parts[0]!.remarks.some((one) => one.owner === rows[700]!.owner)).toBe(false);
    expect((await page('')).rulings).toHaveLength(500);
  });

  it('shows a ruling at once, and sends only the page in which it stands', async () => {
    const tagged = async (path: string, tag?: string): Promise<Response> =>
      fetch(`${api.address}/api/legs/${leg}/ledger${path}`, {
        headers: { ...api.headers, 'cache-control': 'max-age=0', ...(tag ? { 'if-none-match': tag } : {}) },
      });
    const [first] = await pages(500);
    const after = `?limit=500&after=${first!.next}`;
    const tags = [(await tagged('?limit=500')).headers.get('etag')!, (await tagged(after)).headers.get('etag')!];
    await api.call('PUT', `/api/legs/${leg}/rulings/${rows[650]!.id}`, { ruling: 'drop' });
    expect((await tagged('?limit=500', tags[0])).status).toBe(304);
    const changed = await tagged(after, tags[1]);
    expect(changed.status).toBe(200);
    expect(((await changed.json()) as LedgerPage).rulings[150]).toMatchObject({ id: rows[650]!.id, ruling: 'drop' });
  });

  it('refuses to go on after a row that is gone, and pages without end', async () => {
    await expect(page(`?after=${randomUUID()}`)).rejects.toMatchObject({ status: 409 });
    for (const query of ['?limit=0', '?limit=2001', '?limit=x']) {
      const refused = await page(query).catch((error: unknown) => error);
      expect([query, (refused as ApiError).status]).toEqual([query, 400]);
    }
  });
});
