import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { Acted, LedgerPage, MoveView, RowStory, joinedLedger } from '@wanderon/contract';
import { CHANGED_SINCE, Ruling, rowSeen, plain } from '@wanderon/core';
import knex, { Knex } from 'knex';
import { Api, ApiError } from '../../../command/src/api';
import { DEMO_PASSWORD } from '../../../command/src/demoData';
import { ROOT } from '../../../command/src/processes';
import { ALIAS, LargeLedger, insertLedger } from '../support/largeLedger';
import { ServerUnderTest } from '../support/world';

const ROWS = 1203;
const asCore = (row: LedgerPage['rulings'][number]): Pick<Ruling, 'ruling' | 'planned'> => ({ ruling: row.ruling, planned: row.planned ?? undefined });

/** A ledger of more rows than a page holds: read in parts, each anew only where it changed. */
describe('a large ledger', () => {
  const server = new ServerUnderTest({ WANDERON_ROOT_HINTS: join(ROOT, 'e2e/corpus/hints') });
  let leg: string;
  let move: string;
  let rows: LargeLedger['rows'];
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
    ({ leg, move, rows } = await insertLedger(database, ROWS));
  });
  afterAll(async () => {
    await database.destroy();
    await server.close();
  });

  it('is whole when its pages are put together, however long they are', async () => {
    const [whole] = await pages(2000);
    expect(whole).toMatchObject({ total: ROWS + 1, next: null });
    // Put together, they follow each other as in the plan.
    expect(joinedLedger([whole!]).rulings.map((one) => one.id)).toEqual(rows.map((row) => row.id));
    // As they are read: what is on the screen stays where it is while more pages come.
    expect(whole!.rulings.map((one) => one.place)).toEqual(rows.map((_, place) => place));
    const beside = whole!.remarks.filter((one) => one.owner === rows[ALIAS]!.owner);
    expect(beside.length).toBeGreaterThan(0);
    const parts = await pages(100);
    expect(parts).toHaveLength(13);
    const joined = joinedLedger(parts);
    expect(joined.rulings).toEqual(joinedLedger([whole!]).rulings);
    const texts = (all: LedgerPage['remarks']): string[] => all.map((one) => `${one.owner} ${one.type} ${one.code}`).sort();
    expect(texts(joined.remarks)).toEqual(texts(whole!.remarks));
    expect(parts[0]!.remarks.some((one) => one.owner === rows[ALIAS]!.owner)).toBe(false);
    expect((await page('')).rulings).toHaveLength(500);
  });

  it('is the same for whoever does not know yet which leg it is of, nor after which row the page begins', async () => {
    const latest = (query: string): Promise<LedgerPage> => api.call<LedgerPage>('GET', `/api/moves/${move}/ledger${query}`);
    const first = await latest('');
    const [whole] = await pages(2000);
    expect(first).toEqual(await page(''));
    expect(first).toMatchObject({ leg, after: null });
    expect(await latest('?from=500&limit=5000')).toEqual(await page(`?after=${first.next}&limit=5000`));
    expect(await latest('?from=500&limit=5000')).toMatchObject({ after: first.next });
    const beyond = await latest('?from=100000');
    expect(beyond).toMatchObject({ rulings: [], next: null, total: ROWS + 1, after: whole!.rulings.at(-1)!.id });
    await expect(api.call('GET', `/api/moves/${randomUUID()}/ledger`)).rejects.toMatchObject({ status: 404 });
  });

  it('tells what lies behind a row, and keeps what people write beside it until they take it back', async () => {
    const row = rows[3]!;
    const story = (): Promise<RowStory> => api.call<RowStory>('GET', `/api/legs/${leg}/rows/${row.id}`);
    const comments = `/api/legs/${leg}/rows/${row.id}/comments`;
    expect((await story()).history).toEqual([]);
    await api.call('PUT', `/api/legs/${leg}/rulings/${row.id}`, { ruling: 'drop' });
    await api.call('POST', `/api/legs/${leg}/undo`);
    await api.call('POST', comments, { text: 'Ask the client\nbefore Friday.' });
    const told = await story();
    expect(told.history).toMatchObject([{ text: 'left out', undone: true, who: 'Administrator' }]);
    expect(told.comments).toMatchObject([{ text: 'Ask the client\nbefore Friday.', mine: true }]);
    for (const text of ['', '   ', 'a\u0000b', '\ud800', 'x'.repeat(2001)])
      await expect(api.call('POST', comments, { text })).rejects.toMatchObject({ status: 400 });
    // An undo is about rulings; a comment goes when its writer says so, once.
    await api.call('DELETE', `/api/legs/${leg}/comments/${told.comments[0]!.id}`);
    expect((await story()).comments).toEqual([]);
    for (const id of [told.comments[0]!.id, 'none', '9'.repeat(30)])
      await expect(api.call('DELETE', `/api/legs/${leg}/comments/${id}`)).rejects.toMatchObject({ status: 404 });
    await expect(api.call('GET', `/api/legs/${leg}/rows/${randomUUID()}`)).rejects.toMatchObject({ status: 404 });
  });

  it('lets nobody overwrite what another person has ruled unseen, and takes back for each what is theirs', async () => {
    await api.call('POST', '/api/people', { login: 'second', name: 'Second Person', role: 'technician', password: DEMO_PASSWORD, mustChange: false });
    const other = await server.signIn('second');
    const [one, two] = [rows[20]!, rows[21]!];
    const at = async (id: string): Promise<LedgerPage['rulings'][number]> => (await pages(2000))[0]!.rulings.find((row) => row.id === id)!;
    const seen = (row: LedgerPage['rulings'][number]): string => rowSeen({ ruling: row.ruling, planned: row.planned ?? undefined });
    const rule = (as: Api, id: string, ruling: string, saw: string): Promise<unknown> =>
      as.call('PUT', `/api/legs/${leg}/rulings/${id}`, { ruling, seen: saw });
    const before = seen(await at(one.id));
    await rule(other, one.id, 'drop', before);
    // Seen before the other one ruled it: both are told, and it stands as it was ruled.
    await expect(rule(api, one.id, 'carry', before)).rejects.toMatchObject({
      status: 409,
      message: expect.stringMatching(/Second Person has decided .* meanwhile: left out\..*Yours would be kept/s) as string,
    });
    const many = { rows: [two.id, one.id], ruling: 'carry', seen: [seen(await at(two.id)), before] };
    await expect(api.call('PUT', `/api/legs/${leg}/rulings`, many)).rejects.toMatchObject({ status: 409 });
    expect((await at(one.id)).ruling).toBe('drop');
    // Who has seen it rules it.
    await rule(api, two.id, 'drop', seen(await at(two.id)));
    expect((await other.call<MoveView>('GET', `/api/moves/${move}`)).legs[0]!.undoable).toContain(plain(one.owner));
    await other.call('POST', `/api/legs/${leg}/undo`);
    expect([(await at(one.id)).ruling, (await at(two.id)).ruling]).toEqual(['carry', 'drop']);
    await expect(other.call('POST', `/api/legs/${leg}/undo`)).rejects.toThrow(/nothing of yours to undo/);
    await other.call('POST', `/api/legs/${leg}/redo`);
    await rule(api, one.id, 'carry', seen(await at(one.id)));
    expect((await at(one.id)).ruling).toBe('carry');
    await api.call('POST', `/api/legs/${leg}/undo`);
    await api.call('POST', `/api/legs/${leg}/undo`);
    await other.call('POST', `/api/legs/${leg}/undo`);
    expect([(await at(one.id)).ruling, (await at(two.id)).ruling]).toEqual(['carry', 'carry']);
  });

  it('takes a ruling of many that was taken back for no ruling: another person rules one of them as it was seen', async () => {
    const other = await server.signIn('second');
    const row = rows[30]!;
    const { planned } = (await pages(2000))[0]!.rulings.find((one) => one.id === row.id)!;
    const seen = rowSeen({ ruling: 'carry', planned: planned! });
    await api.call('PUT', `/api/legs/${leg}/rulings`, { rows: [row.id, rows[31]!.id], ruling: 'drop' });
    await api.call('POST', `/api/legs/${leg}/undo`);
    await other.call('PUT', `/api/legs/${leg}/rulings/${row.id}`, { ruling: 'drop', seen });
    await other.call('POST', `/api/legs/${leg}/undo`);
  });

  it('is one ledger for two servers: each acts on what the other has just written, and neither takes back what is taken back', async () => {
    const second = await server.another();
    try {
      const there = await new Api(second.address).signIn('second', DEMO_PASSWORD);
      const here = await server.signIn('second');
      const ruling = async (by: Api, index: number): Promise<string> =>
        joinedLedger([await by.call<LedgerPage>('GET', `/api/legs/${leg}/ledger?limit=2000`)]).rulings.find((one) => one.id === rows[index]!.id)!.ruling;
      const put = (by: Api, index: number, kind: string): Promise<unknown> => by.call('PUT', `/api/legs/${leg}/rulings/${rows[index]!.id}`, { ruling: kind });
      // Both know the move; what each knows grows old with the other's act.
      expect([await ruling(here, 40), await ruling(there, 40)]).toEqual(['carry', 'carry']);
      await put(here, 40, 'drop');
      await there.call('POST', `/api/legs/${leg}/undo`);
      await expect(here.call('POST', `/api/legs/${leg}/undo`)).rejects.toThrow(/nothing of yours to undo/);
      await here.call('POST', `/api/legs/${leg}/redo`);
      expect([await ruling(here, 40), await ruling(there, 40)]).toEqual(['drop', 'drop']);
      await there.call('POST', `/api/legs/${leg}/undo`);
      const before = await database('decisions').where({ leg_id: leg }).max<{ max: string }[]>('id as max');
      const answers = await Promise.allSettled(
        Array.from({ length: 60 }, (_, index) => {
          const by = index % 2 === 0 ? here : there;
          return index % 3 === 2 ? by.call('POST', `/api/legs/${leg}/undo`) : put(by, 41 + (index % 7), index % 5 === 0 ? 'drop' : 'carry');
        }),
      );
      const refusals = answers.flatMap((one) => (one.status === 'rejected' ? [(one.reason as ApiError).message] : []));
      expect(refusals.filter((text) => !/nothing of yours to undo/.test(text))).toEqual([]);
      const made = await database('decisions')
        .where({ leg_id: leg })
        .andWhere('id', '>', before[0]!.max)
        .select<{ id: string; undoes: string | null }[]>('id', 'undoes');
      expect(made).toHaveLength(60 - refusals.length);
      // Nothing is taken back twice.
      const undone = made.flatMap((one) => one.undoes ?? []);
      expect(new Set(undone).size).toBe(undone.length);
      for (let index = 41; index < 48; index++) expect([index, await ruling(here, index)]).toEqual([index, await ruling(there, index)]);
      while (
        await here.call('POST', `/api/legs/${leg}/undo`).then(
          () => true,
          () => false,
        )
      );
      for (let index = 41; index < 48; index++) expect([index, await ruling(there, index)]).toEqual([index, 'carry']);
    } finally {
      await second.stop('SIGKILL');
    }
  });

  it('shows a ruling at once, and sends only the page in which it stands', async () => {
    const tagged = async (path: string, tag?: string): Promise<Response> =>
      fetch(`${api.address}/api/legs/${leg}/ledger${path}`, {
        headers: { ...api.headers, 'cache-control': 'max-age=0', ...(tag ? { 'if-none-match': tag } : {}) },
      });
    const [first, second] = await pages(500);
    const { id } = second!.rulings[150]!;
    const after = `?limit=500&after=${first!.next}`;
    const tags = [(await tagged('?limit=500')).headers.get('etag')!, (await tagged(after)).headers.get('etag')!];
    await api.call('PUT', `/api/legs/${leg}/rulings/${id}`, { ruling: 'drop' });
    expect((await tagged('?limit=500', tags[0])).status).toBe(304);
    const changed = await tagged(after, tags[1]);
    expect(changed.status).toBe(200);
    expect(((await changed.json()) as LedgerPage).rulings[150]).toMatchObject({ id, ruling: 'drop' });
  });

  it('rules many rows as one decision, which one undo takes back and one redo makes again; single rulings go on from there', async () => {
    const many = rows.slice(10, 510).map((row) => row.id);
    const kinds = async (): Promise<string> => {
      const { rulings } = joinedLedger(await pages(2000));
      const of = new Map(rulings.map((one) => [one.id, one.ruling]));
      return [rows[9]!.id, many[0]!, many[499]!, rows[510]!.id].map((id) => of.get(id)).join(' ');
    };
    const decided = async (): Promise<number> =>
      Number((await database('decisions').where({ leg_id: leg }).count<{ count: string }[]>('* as count'))[0]!.count);
    const before = await decided();
    await api.call('PUT', `/api/legs/${leg}/rulings`, { rows: many, ruling: 'repoint', data: '192.0.2.88' });
    expect([await kinds(), await decided()]).toEqual(['carry repoint repoint carry', before + 1]);
    await api.call('POST', `/api/legs/${leg}/undo`);
    expect(await kinds()).toBe('carry carry carry carry');
    await api.call('POST', `/api/legs/${leg}/redo`);
    expect(await kinds()).toBe('carry repoint repoint carry');
    // One of them is ruled alone, from what it became with the others; then all of them again.
    await api.call('PUT', `/api/legs/${leg}/rulings/${many[0]!}`, { ruling: 'repoint', ttl: '60' });
    const { rulings } = joinedLedger(await pages(2000));
    expect(rulings.find((one) => one.id === many[0])!.planned).toMatchObject({ ttl: 60, data: ['192.0.2.88'] });
    await api.call('PUT', `/api/legs/${leg}/rulings`, { rows: many, ruling: 'drop' });
    expect(await kinds()).toBe('carry drop drop carry');
    await api.call('POST', `/api/legs/${leg}/undo`);
    await api.call('POST', `/api/legs/${leg}/undo`);
    expect(await kinds()).toBe('carry repoint repoint carry');
    await api.call('POST', `/api/legs/${leg}/undo`);
    expect(await kinds()).toBe('carry carry carry carry');
  });

  it('rules none of many where one cannot be so, and says which', async () => {
    const wrong = async (body: object): Promise<unknown> =>
      api.call('PUT', `/api/legs/${leg}/rulings`, body).catch((error: unknown) => (error as ApiError).message);
    expect(await wrong({ rows: [rows[1]!.id, rows[ALIAS]!.id], ruling: 'repoint', data: 'sites.new.example.' })).toContain(plain(rows[1]!.owner));
    expect(await wrong({ rows: [rows[1]!.id, randomUUID()], ruling: 'drop' })).toMatch(/proposed anew, or are gone/);
    const { rulings } = joinedLedger(await pages(2000));
    expect(rulings.find((one) => one.id === rows[1]!.id)!.ruling).toBe('carry');
    for (const body of [{ rows: [], ruling: 'drop' }, { rows: [rows[1]!.id], ruling: 'new' }, { ruling: 'drop' }])
      await expect(api.call('PUT', `/api/legs/${leg}/rulings`, body)).rejects.toMatchObject({ status: 400 });
  });

  /** What stands beside the alias: an address, and a remark on both that stops the move. */
  const beside = async (): Promise<LedgerPage['remarks'][number] | undefined> =>
    joinedLedger(await pages(2000)).remarks.find((one) => one.code === 'alias-beside-data');
  const of = ({ owner, type, code }: LedgerPage['remarks'][number]) => ({ owner, type, code });
  const refused = (asking: Promise<unknown>): Promise<number> =>
    asking.then(
      () => 200,
      (error: unknown) => (error as ApiError).status,
    );
  const stops = async (): Promise<number> => (await api.call<MoveView>('GET', `/api/moves/${move}`)).legs[0]!.counts.stops;

  it('lets a remark be with a reason, until its cause changes', async () => {
    const remark = (await beside())!;
    expect([remark.waived, await stops()]).toEqual([null, 1]);
    expect(await refused(api.call('POST', `/api/legs/${leg}/remarks`, { ...of(remark), fact: remark.fact, reason: ' ' }))).toBe(400);
    expect(await refused(api.call('POST', `/api/legs/${leg}/remarks`, { ...of(remark), fact: 'other', reason: 'it is known' }))).toBe(409);
    await api.call('POST', `/api/legs/${leg}/remarks`, { ...of(remark), fact: remark.fact, reason: 'the panel takes it' });
    expect([(await beside())!.waived, await stops()]).toEqual(['the panel takes it', 0]);
    // Another alias is another matter; as it was, it was let be.
    await api.call('PUT', `/api/legs/${leg}/rulings/${rows[ALIAS]!.id}`, { ruling: 'repoint', data: 'name-2' });
    expect([(await beside())!.waived, await stops()]).toEqual([null, 1]);
    await api.call('POST', `/api/legs/${leg}/undo`);
    expect([(await beside())!.waived, await stops()]).toEqual(['the panel takes it', 0]);
    await api.call('POST', `/api/legs/${leg}/remarks`, { ...of(remark), fact: remark.fact, reason: null });
    expect([(await beside())!.waived, await stops()]).toEqual([null, 1]);
  });

  it('makes the fix that was shown, as one decision, and no other', async () => {
    const remark = (await beside())!;
    const [keep, without] = remark.fixes;
    expect(keep!.rows).toEqual([{ owner: rows[ALIAS]!.owner, type: 'A', before: ['192.0.2.7'], after: null }]);
    expect(await refused(api.call('POST', `/api/legs/${leg}/mend`, { ...of(remark), fix: 'another' }))).toBe(409);
    expect(await refused(api.call('POST', `/api/legs/${leg}/mend`, { ...of(remark), code: 'nothing', fix: keep!.key }))).toBe(404);
    await api.call('POST', `/api/legs/${leg}/mend`, { ...of(remark), fix: without!.key });
    expect([await beside(), await stops()]).toEqual([undefined, 0]);
    // It was made: what was shown does not fit any more.
    expect(await refused(api.call('POST', `/api/legs/${leg}/mend`, { ...of(remark), fix: keep!.key }))).toBe(404);
    await api.call('POST', `/api/legs/${leg}/undo`);
    expect(await beside()).toEqual(remark);
  });

  it('takes a plan back that was edited elsewhere, as one decision; what cannot be read changes nothing', async () => {
    const rowsNow = async (): Promise<LedgerPage['rulings']> => joinedLedger(await pages(2000)).rulings;
    const before = await rowsNow();
    const alias = before.find((row) => row.type === 'CNAME')!;
    const wanted = before
      .filter((row) => row.owner !== rows[5]!.owner && row.type !== 'CNAME')
      .flatMap(({ owner, planned }) => (planned ? [{ ...planned, owner, ...(owner === rows[6]!.owner ? { data: ['203.0.113.6'] } : {}) }] : []));
    const fresh = { owner: 'new.seed-library.example.', type: 'TXT', ttl: 60, data: ['"new"'] };
    expect(await refused(api.call('PUT', `/api/legs/${leg}/plan`, { sets: [{ ...fresh, data: ['new" x'] }] }))).toBe(400);
    expect(await refused(api.call('PUT', `/api/legs/${leg}/plan`, { sets: [{ ...fresh, owner: 'elsewhere.example.' }] }))).toBe(400);
    expect(await rowsNow()).toEqual(before);
    await api.call('PUT', `/api/legs/${leg}/plan`, { sets: [...wanted, fresh] });
    const after = new Map((await rowsNow()).map((row) => [`${row.owner} ${row.type}`, row]));
    expect(after.get(`${rows[5]!.owner} A`)).toMatchObject({ ruling: 'drop', planned: null });
    expect(after.get(`${rows[6]!.owner} A`)).toMatchObject({ ruling: 'repoint', planned: { data: ['203.0.113.6'] } });
    expect(after.get(`${alias.owner} CNAME`)).toMatchObject({ ruling: 'drop' });
    expect(after.get('new.seed-library.example. TXT')).toMatchObject({ ruling: 'new', planned: fresh });
    expect(await refused(api.call('PUT', `/api/legs/${leg}/plan`, { sets: [...wanted, fresh] }))).toBe(409);
    await api.call('POST', `/api/legs/${leg}/undo`);
    expect(await rowsNow()).toEqual(before);
  });

  it('rules every row of a kind as one decision, and offers the same to a row that comes later, until the rule is over', async () => {
    const kinds = async (): Promise<Map<string, number>> => {
      const { rulings } = joinedLedger(await pages(2000));
      return new Map(['carry', 'repoint', 'drop'].map((kind) => [kind, rulings.filter((one) => one.ruling === kind).length]));
    };
    const rules = async (): Promise<LedgerPage['rules']> => (await page('?limit=1')).rules;
    const all = joinedLedger(await pages(2000)).rulings.filter((row) => row.type === 'A' && /^name-1\d\./.test(row.owner));
    const [first, ...rest] = all;
    const rule = { like: '192.0.2.0/24', group: null, ruling: 'repoint', to: '198.51.100.7' };
    const some = { ...rule, like: '192.0.2.0/24 name-1', rows: rest.map((row) => row.id), seen: rest.map((row) => rowSeen(asCore(row))) };
    // The preview has to be of all that the rule is about: what is not in it is named.
    await expect(api.call('PUT', `/api/legs/${leg}/rules`, some)).rejects.toMatchObject({
      status: 409,
      message: expect.stringMatching(/others by now/) as string,
    });
    await expect(api.call('PUT', `/api/legs/${leg}/rules`, { ...some, to: 'https://new' })).rejects.toMatchObject({ status: 400 });
    const before = await kinds();
    const about = joinedLedger(await pages(2000)).rulings.filter((row) => row.type === 'A' && row.owner.includes('name-1'));
    const taken = about.filter((row) => row.id !== first!.id);
    const made = { ...some, rows: taken.map((row) => row.id), except: [first!.id], seen: taken.map((row) => rowSeen(asCore(row))) };
    await api.call('PUT', `/api/legs/${leg}/rules`, made);
    expect((await kinds()).get('repoint')).toBe(taken.length);
    expect(await rules()).toMatchObject([{ words: 'Everything like “192.0.2.0/24 name-1” leads to 198.51.100.7', who: 'Administrator', rows: [] }]);
    await api.call('POST', `/api/legs/${leg}/undo`);
    expect([await kinds(), await rules()]).toEqual([before, []]);
    await api.call('POST', `/api/legs/${leg}/redo`);
    // A row that appeared at the old host and was taken into the plan, with an address of its own beside.
    const later = randomUUID();
    const set = { owner: 'name-1-later.seed-library.example.', type: 'A', ttl: 3600, data: ['192.0.2.7', '203.0.113.5'] };
    const row = { owner: set.owner, type: 'A', ruling: 'carry', found: set, planned: set, reason: CHANGED_SINCE };
    const { id: person } = await database('people').where({ login: 'second' }).first<{ id: string }>('id');
    await database('decisions').insert({ leg_id: leg, kind: 'ruling', subject: later, value: JSON.stringify({ row }), person_id: person, at: 1e9 });
    await database('moves').where({ id: move }).increment('version', 1);
    const [offered] = await rules();
    expect(offered!.rows).toMatchObject([{ id: later, ruling: 'repoint', planned: { data: ['198.51.100.7', '203.0.113.5'] } }]);
    const { rulings } = joinedLedger(await pages(2000));
    expect(rulings.find((row) => row.id === later)!.ruling).toBe('carry');
    const seen = rowSeen(asCore(rulings.find((row) => row.id === later)!));
    const take = (body: object): Promise<unknown> => api.call('POST', `/api/legs/${leg}/rules/${offered!.id}`, body);
    await expect(take({ rows: [later], seen: ['otherwise'] })).rejects.toMatchObject({ status: 409 });
    await expect(take({ rows: [first!.id], seen: ['x'] })).rejects.toMatchObject({ status: 409 });
    await take({ rows: [later], seen: [seen] });
    expect((await rules())[0]!.rows).toEqual([]);
    await api.call('POST', `/api/legs/${leg}/undo`);
    expect((await rules())[0]!.rows).toHaveLength(1);
    await api.call('DELETE', `/api/legs/${leg}/rules/${offered!.id}`);
    expect(await rules()).toEqual([]);
    for (const id of [offered!.id, 'none', '9'.repeat(30)])
      await expect(api.call('DELETE', `/api/legs/${leg}/rules/${id}`)).rejects.toMatchObject({ status: 404 });
    await api.call('POST', `/api/legs/${leg}/undo`);
    expect(await rules()).toHaveLength(1);
    await api.call('POST', `/api/legs/${leg}/undo`);
    expect([await rules(), (await kinds()).get('repoint')]).toEqual([[], before.get('repoint')]);
    await (await server.signIn('second')).call('POST', `/api/legs/${leg}/undo`);
  });

  it('does an act once, however often it is asked for by its name, of whichever server; and each person’s own', async () => {
    const second = await server.another();
    try {
      const there = await new Api(second.address).signIn('admin', DEMO_PASSWORD);
      const other = await server.signIn('second');
      const name = 'ab'.repeat(16);
      const act = (by: Api, path: string, body: object, named: Record<string, string>): Promise<Response> =>
        fetch(`${by.address}/api/legs/${leg}${path}`, {
          ...{ method: path.startsWith('/rulings') ? 'PUT' : 'POST', body: JSON.stringify(body) },
          headers: { ...by.headers, 'content-type': 'application/json', ...named },
        });
      const decided = async (): Promise<number> =>
        Number((await database('decisions').where({ leg_id: leg }).count<{ count: string }[]>('* as count'))[0]!.count);
      for (const index of [80, 81]) await api.call('PUT', `/api/legs/${leg}/rulings/${rows[index]!.id}`, { ruling: 'drop' });
      const before = await decided();
      // An undo whose answer was lost takes one ruling back, and not the one before it as well.
      const again = { 'x-act': name, 'x-again': '1' };
      const answers = [
        await act(api, '/undo', {}, { 'x-act': name }),
        await act(api, '/undo', {}, again),
        await act(there, '/undo', {}, again),
        ...(await Promise.all(Array.from({ length: 6 }, (_, index) => act(index % 2 === 0 ? api : there, '/undo', {}, again)))),
      ];
      expect([...new Set(answers.map((one) => one.status))]).toEqual([200]);
      expect(await decided()).toBe(before + 1);
      // The first of them may be on its way still: the database has the last word.
      const both = { 'x-act': 'cd'.repeat(16) };
      const raced = await Promise.all([api, there, api, there].map((by) => act(by, '/undo', {}, both)));
      expect([raced.map((one) => one.status), await decided()]).toEqual([[200, 200, 200, 200], before + 2]);
      // Somebody else's of the same name is another act; a name that is none counts for nothing.
      await act(other, `/rulings/${rows[82]!.id}`, { ruling: 'drop' }, again);
      await act(api, `/rulings/${rows[83]!.id}`, { ruling: 'drop' }, { 'x-act': 'x', 'x-again': '1' });
      expect(await decided()).toBe(before + 4);
      await other.call('POST', `/api/legs/${leg}/undo`);
      const told = await api.call<Acted>('POST', `/api/legs/${leg}/undo`);
      expect(told.rows).toMatchObject([{ id: rows[83]!.id, row: { ruling: 'carry', planned: { data: ['192.0.2.7'] } } }]);
    } finally {
      await second.stop('SIGKILL');
    }
  });

  it('refuses to go on after a row that is gone, and pages without end', async () => {
    await expect(page(`?after=${randomUUID()}`)).rejects.toMatchObject({ status: 409 });
    for (const query of ['?limit=0', '?limit=5001', '?limit=x', '?from=-1', '?from=x']) {
      const refused = await page(query).catch((error: unknown) => error);
      expect([query, (refused as ApiError).status]).toEqual([query, 400]);
    }
  });
});
