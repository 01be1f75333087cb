import { spawnSync } from 'node:child_process';
import { request } from 'node:http';
import { join } from 'node:path';
import { Me, Person, Session, TrailPage } from '@wanderon/contract';
import knex, { Knex } from 'knex';
import { checkTrail, sealEvents } from '../../../packages/server/src/events/trailSeals';
import { Api, until } from '../../../command/src/api';
import { DEMO_PASSWORD } from '../../../command/src/demoData';
import { ROOT } from '../../../command/src/processes';
import { codeAt, octetsOf } from '../support/totp';
import { SECRET_KEY, ServerUnderTest } from '../support/world';

const FIRST = 'a first password of theirs';
const OWN = 'a password of their own';

describe('people', () => {
  const server = new ServerUnderTest({ WANDERON_ROOT_HINTS: join(ROOT, 'e2e/corpus/hints') });
  let database: Knex;
  let admin: Api;
  const person = async (login: string): Promise<Person> =>
    (await admin.call<{ people: Person[] }>('GET', '/api/people')).people.find((one) => one.login === login)!;
  const edit = async (login: string, change: object): Promise<Person> => {
    const { id, name, role, disabled, demanded } = await person(login);
    return admin.call<Person>('PUT', `/api/people/${id}`, { name, role, disabled, demanded, ...change });
  };
  const as = (login: string, password = OWN): Promise<Api> => new Api(server.address).signIn(login, password);
  const me = (api: Api): Promise<Me> => api.call<Me>('GET', '/api/me');
  const trail = async (text: string): Promise<string[]> =>
    (await admin.call<TrailPage>('GET', `/api/trail?text=${encodeURIComponent(text)}`)).entries.map((entry) => entry.text);
  const is401 = expect.objectContaining({ status: 401 }) as unknown;
  const signInWith = (body: object, from?: string): Promise<Response> =>
    fetch(`${server.address}/api/sign-in`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', ...(from && { 'x-forwarded-for': from }) },
      body: JSON.stringify(body),
    });

  beforeAll(async () => {
    await server.open();
    database = knex({ client: 'pg', connection: server.database });
    admin = await server.signIn('admin');
    await admin.call('POST', '/api/people', { login: 'boatswain', name: 'Boatswain', role: 'technician', password: FIRST });
  });
  afterAll(async () => {
    await database.destroy();
    await server.close();
  });

  it('change a password that was given to them before they do anything else', async () => {
    const api = await as('boatswain', FIRST);
    expect((await me(api)).must).toBe('password');
    await expect(api.call('GET', '/api/moves')).rejects.toThrow(/Choose a password of your own first/);
    const change = (current: string, password: string): Promise<unknown> => api.call('PUT', '/api/me/password', { current, password });
    await expect(change('something else', OWN)).rejects.toThrow(/This is not your password.*"field":"current"/);
    await expect(change(FIRST, FIRST)).rejects.toThrow(/This is the password that you have now/);
    for (const weak of ['short', 'Password2026!!', 'boatswain-boatswain', 'wanderon-2026'])
      await expect(change(FIRST, weak)).rejects.toMatchObject({ status: 400, body: expect.stringContaining('"field":"password"') as string });
    await change(FIRST, OWN);
    expect((await me(api)).must).toBeNull();
    await api.call('GET', '/api/moves');
    await expect(as('boatswain', FIRST)).rejects.toThrow(/wrong/);
  });

  it('end their other sessions with a new password, see where they are signed in, and end what is not theirs any more', async () => {
    const [here, there] = [await as('boatswain'), await as('boatswain')];
    const sessions = async (api: Api): Promise<Session[]> => (await api.call<{ sessions: Session[] }>('GET', '/api/me/sessions')).sessions;
    const other = (await sessions(here)).find((one) => !one.own)!;
    expect((await sessions(here)).filter((one) => one.own)).toHaveLength(1);
    // Nobody ends a session of somebody else, whatever its number is.
    const mine = (await sessions(admin))[0]!;
    await expect(here.call('DELETE', `/api/me/sessions/${mine.id}`)).rejects.toMatchObject({ status: 404 });
    for (const one of await sessions(here)) if (!one.own) await here.call('DELETE', `/api/me/sessions/${one.id}`);
    await expect(there.call('GET', '/api/me')).rejects.toEqual(is401);
    expect(other.address).toMatch(/127\.0\.0\.1/);
    const again = await as('boatswain');
    await here.call('PUT', '/api/me/password', { current: OWN, password: `${OWN}, and another` });
    await expect(again.call('GET', '/api/me')).rejects.toEqual(is401);
    await here.call('PUT', '/api/me/password', { current: `${OWN}, and another`, password: OWN });
  });

  it('are signed out when nobody was there for long, though their page asks by itself', async () => {
    const api = await as('boatswain');
    const back = (seconds: number): Promise<unknown> => database('sessions').update({ seen_at: database.raw('seen_at - ?', [seconds]) });
    const seen = async (): Promise<number> => Number((await database('sessions').max<{ max: number }[]>('seen_at as max'))[0]!.max);
    await back(3600);
    const before = await seen();
    expect((await fetch(`${server.address}/api/moves`, { headers: { ...api.headers, 'x-unattended': '1' } })).status).toBe(200);
    expect(await seen()).toBe(before);
    await api.call('GET', '/api/moves');
    expect(await seen()).toBeGreaterThan(before + 3000);
    await back(7300);
    await expect(api.call('GET', '/api/moves')).rejects.toEqual(is401);
    admin = await server.signIn('admin');
  });

  it('lose their sessions and the streams of those with a role that is taken, or when the account is shut', async () => {
    for (const change of [{ role: 'viewer' }, { disabled: true }]) {
      const api = await as('boatswain');
      const ended = await openStream(api);
      await edit('boatswain', change);
      await ended();
      await expect(api.call('GET', '/api/me')).rejects.toEqual(is401);
    }
    await expect(as('boatswain')).rejects.toThrow(/wrong/);
    await edit('boatswain', { disabled: false, role: 'technician' });
    expect((await me(await as('boatswain'))).role).toBe('technician');
  });

  it('have an end to their streams at sign-out, and only so many of them', async () => {
    const api = await as('boatswain');
    const ends = [];
    for (let i = 0; i < 13; i++) ends.push(await openStream(api));
    // The first one made room for the last.
    await ends[0]!();
    await api.call('POST', '/api/sign-out');
    await Promise.all(ends.map((end) => end()));
  });

  it('always have somebody who looks after accounts', async () => {
    await expect(edit('admin', { role: 'technician' })).rejects.toThrow(/This is the last administrator/);
    await expect(edit('admin', { disabled: true })).rejects.toThrow(/This is the last administrator/);
    await admin.call('POST', '/api/people', { login: 'second', name: 'Second', role: 'administrator', password: OWN, mustChange: false });
    const second = await as('second');
    // Each shuts the other one out at once: one of them stays.
    const both = await Promise.allSettled([
      edit('second', { role: 'viewer' }),
      (async () => {
        const { id, name } = await person('admin');
        return second.call('PUT', `/api/people/${id}`, { name, role: 'viewer', disabled: false, demanded: false });
      })(),
    ]);
    expect(both.filter((one) => one.status === 'fulfilled').length).toBeGreaterThan(0);
    const left = await database('people').where({ role: 'administrator', disabled: false }).select<{ login: string }[]>('login');
    expect(left).toHaveLength(1);
    await database('people').where({ login: 'admin' }).update({ role: 'administrator' });
    await database('people').where({ login: 'second' }).update({ disabled: true });
    admin = await server.signIn('admin');
  });

  describe('with a second factor', () => {
    const now = (): number => Date.now() / 1000;
    let secret: string;
    let recovery: string[];
    /** Where they were signed in when they set it up. */
    let open: Api;

    it('that an administrator asks for set it up before they do anything else', async () => {
      await edit('boatswain', { demanded: true });
      const api = await as('boatswain');
      expect((await me(api)).must).toBe('second factor');
      await expect(api.call('GET', '/api/moves')).rejects.toThrow(/Set up a second factor first/);
      await expect(api.call('POST', '/api/me/second-factor', { password: 'wrong' })).rejects.toThrow(/This is not your password/);
      const offer = await api.call<{ secret: string; address: string }>('POST', '/api/me/second-factor', { password: OWN });
      secret = offer.secret;
      expect(offer.address).toMatch(/^otpauth:\/\/totp\/Wanderon:boatswain\?/);
      await expect(api.call('PUT', '/api/me/second-factor', { code: '000000' })).rejects.toThrow(/The code is not right/);
      ({ codes: recovery } = await api.call<{ codes: string[] }>('PUT', '/api/me/second-factor', { code: codeAt(secret, now() - 30) }));
      expect(new Set(recovery).size).toBe(10);
      open = api;
      expect((await me(api)).must).toBeNull();
      await api.call('GET', '/api/moves');
    });

    it('are asked for a code once the password was right, and each code counts once', async () => {
      const login = 'boatswain';
      const asked = await signInWith({ login, password: OWN });
      expect([asked.status, await asked.json()]).toEqual([401, expect.objectContaining({ needsCode: true, field: 'code' })]);
      expect(await (await signInWith({ login, password: 'wrong', code: codeAt(secret, now()) })).json()).not.toHaveProperty('needsCode');
      const code = codeAt(secret, now());
      expect((await signInWith({ login, password: OWN, code: `${code.slice(0, 3)} ${code.slice(3)}` })).status).toBe(200);
      expect((await signInWith({ login, password: OWN, code })).status).toBe(401);
      // Nor does an earlier one.
      expect((await signInWith({ login, password: OWN, code: codeAt(secret, now() - 30) })).status).toBe(401);
    });

    it('get in once with each recovery code', async () => {
      const typed = recovery[3]!.toUpperCase().replaceAll('-', ' ');
      expect((await signInWith({ login: 'boatswain', password: OWN, code: typed })).status).toBe(200);
      expect((await signInWith({ login: 'boatswain', password: OWN, code: recovery[3] })).status).toBe(401);
    });

    it('have other recovery codes for their password, and the former ones open nothing any more', async () => {
      const api = open;
      await expect(api.call('POST', '/api/me/second-factor/codes', { password: 'wrong' })).rejects.toThrow(/This is not your password/);
      const { codes } = await api.call<{ codes: string[] }>('POST', '/api/me/second-factor/codes', { password: OWN });
      expect([new Set([...codes, ...recovery]).size, (await database('recovery_codes')).length]).toEqual([20, 10]);
      expect((await signInWith({ login: 'boatswain', password: OWN, code: recovery[6] })).status).toBe(401);
      expect((await signInWith({ login: 'boatswain', password: OWN, code: codes[6] })).status).toBe(200);
      await expect(admin.call('POST', '/api/me/second-factor/codes', { password: DEMO_PASSWORD })).rejects.toThrow(/There is no second factor/);
    });

    it('cannot be guessed: a wrong code counts like a wrong password', async () => {
      const answers = await Promise.all(
        Array.from({ length: 40 }, (_, n) => signInWith({ login: 'boatswain', password: OWN, code: String(n).padStart(6, '0') })),
      );
      expect(answers.filter((one) => one.status === 401).length).toBeLessThanOrEqual(10);
      expect(answers.filter((one) => one.status === 429).length).toBeGreaterThanOrEqual(30);
    });

    it('have it taken off by an administrator where all is lost; the secret was sealed all along', async () => {
      const { factor_secret: sealed } = (await database<{ factor_secret: Buffer }>('people').where('login', 'boatswain').first('factor_secret'))!;
      expect(sealed.includes(octetsOf(secret))).toBe(false);
      await admin.call('DELETE', `/api/people/${(await person('boatswain')).id}/second-factor`);
      expect(await person('boatswain')).toMatchObject({ factor: false, demanded: true, sessions: 0 });
      expect(await database('recovery_codes')).toEqual([]);
    });
  });

  it('are given a new password by an administrator, to be changed, with what they had open ended', async () => {
    await edit('boatswain', { demanded: false });
    await database('sign_in_limits').delete();
    const api = await as('boatswain');
    const { id } = await person('boatswain');
    await expect(admin.call('PUT', `/api/people/${id}/password`, { password: 'password1234' })).rejects.toMatchObject({ status: 400 });
    await admin.call('PUT', `/api/people/${id}/password`, { password: 'another one for them' });
    await expect(api.call('GET', '/api/me')).rejects.toEqual(is401);
    expect((await me(await as('boatswain', 'another one for them'))).must).toBe('password');
    expect(await admin.call('POST', `/api/people/${id}/sign-out`)).toEqual({ ended: 1 });
  });

  it('have all of it on record, for administrators, without a password or a secret in it', async () => {
    const all = await trail('boatswain');
    for (const words of [
      'Boatswain (boatswain) was given an account with the role technician.',
      'Boatswain changed their password.',
      'Boatswain (boatswain): role viewer, before technician.',
      'Boatswain (boatswain): the account was shut.',
      'Boatswain (boatswain): a second factor is asked for.',
      'Boatswain set up a second factor.',
      'The second factor of Boatswain (boatswain) was taken off.',
      'Boatswain (boatswain) was given a new password.',
      'Boatswain (boatswain) was signed out everywhere.',
    ])
      expect(all).toContain(words);
    expect((await trail('A code of Boatswain')).length).toBeGreaterThan(0);
    const written = JSON.stringify(await database('events')) + server.said.join('\n');
    for (const secret of [FIRST, OWN, DEMO_PASSWORD, 'another one for them']) expect(written).not.toContain(secret);
    // A page at a time, without a gap.
    const pages: number[] = [];
    let before = '';
    for (let next: number | null = 0; next !== null; before = `&before=${next}`) {
      const page: TrailPage = await admin.call<TrailPage>('GET', `/api/trail?text=${before}`);
      pages.push(...page.entries.map((entry) => entry.id));
      next = page.next;
    }
    const ids = await database('events').orderBy('id', 'desc').select<{ id: string }[]>('id');
    expect(pages).toEqual(ids.map((one) => Number(one.id)));
  });

  it('leave a trail that is sealed: what was changed, removed, moved or put in is named', async () => {
    const check = () =>
      spawnSync(process.execPath, [join(ROOT, 'command/dist/main.js'), 'trail', 'check'], {
        env: { ...process.env, WANDERON_DATABASE: server.database, WANDERON_PUBLIC_ADDRESS: server.address, WANDERON_SECRET_KEY: SECRET_KEY },
        encoding: 'utf8',
      });
    const keys = { WANDERON_SECRET_KEY: Buffer.from(SECRET_KEY, 'base64'), WANDERON_FORMER_KEYS: [] };
    while ((await sealEvents(database, keys)) > 0);
    const whole = check();
    expect([whole.status, whole.stdout]).toEqual([
      0,
      expect.stringMatching(/^All \d+ sealed events of the trail are as they were written\.\nLast seal: [0-9a-f]{64}/),
    ]);
    const events = (await database('events').orderBy('id')) as { id: string; text: string; before: unknown; after: unknown }[];
    const one = events[5]!;
    const two = events.slice(6).find((event) => event.text !== one.text)!;
    /** By somebody who has the database, and not the key. */
    const tampered = async (how: (as: Knex) => Promise<unknown>): Promise<string> => {
      const found = { problem: '' };
      await database
        .transaction(async (transaction) => {
          await transaction.raw("set local session_replication_role = 'replica'");
          await how(transaction);
          found.problem = (await checkTrail(transaction, keys)).problem ?? 'nothing';
          await transaction.rollback();
        })
        .catch(() => undefined);
      return found.problem;
    };
    const at = (id: string): RegExp => new RegExp(`^event ${id} .*(not as it was sealed|not there any more|not written by Wanderon)`);
    expect(await tampered((as) => as('events').where({ id: one.id }).update({ text: 'Nothing happened.' }))).toMatch(at(one.id));
    expect(await tampered((as) => as('events').where({ id: one.id }).update({ person_id: null, at: 0 }))).toMatch(at(one.id));
    expect(await tampered((as) => as('events').where({ id: one.id }).delete())).toMatch(at(one.id));
    // With its seal gone as well, the next one does not follow.
    const without = await tampered(async (as) => {
      await as('trail_seals').where({ event_id: one.id }).delete();
      await as('events').where({ id: one.id }).delete();
    });
    expect(without).toMatch(at(events[6]!.id));
    expect(
      await tampered(async (as) => {
        await as('events').where({ id: one.id }).update({ text: two.text });
        await as('events').where({ id: two.id }).update({ text: one.text });
      }),
    ).toMatch(at(one.id));
    const seals = (await database('trail_seals').orderBy('n')) as { n: string; event_id: string }[];
    const [a, b] = [one, two].map(({ id }) => seals.find((seal) => seal.event_id === id)!);
    expect(
      await tampered(async (as) => {
        await as('trail_seals').where({ n: a!.n }).update({ event_id: '0' });
        await as('trail_seals').where({ n: b!.n }).update({ event_id: a!.event_id });
        await as('trail_seals').where({ n: a!.n }).update({ event_id: b!.event_id });
      }),
    ).toMatch(at(b!.event_id));
    expect(
      await tampered((as) =>
        as('trail_seals')
          .where({ n: a!.n })
          .update({ seal: Buffer.alloc(32) }),
      ),
    ).toMatch(at(one.id));
    // What is put in, a copy of what was written included, has no mark of ours, though the server seals it.
    const putIn = async (row: object): Promise<string> =>
      tampered(async (as) => {
        await as('events').insert({ at: 1, kind: 'note', text: 'Put in.', nonce: 'n', mark: 'aa', ...row });
        while ((await sealEvents(as, keys)) > 0);
      });
    expect(await putIn({})).toMatch(/Put in\.” ?.*was not written by Wanderon/);
    await expect(database('events').insert({ at: 1, kind: 'note', text: 'Put in.' })).rejects.toThrow(/events_marked/);
    const copy = { ...one, id: undefined, before: null, after: null };
    await expect(database('events').insert(copy)).rejects.toThrow(/unique/);
    for (const statement of ["update trail_seals set key_number = ''", 'delete from trail_seals', 'truncate trail_seals'])
      await expect(database.raw(statement)).rejects.toThrow(/append-only/);
  });

  it('and hosts keep their secrets under a new key that servers were told of, with the former one gone afterwards', async () => {
    const host = {
      name: 'Keyed',
      role: 'dns',
      nameservers: ['ns1.keyed.example.'],
      addresses: [],
      aliasTarget: null,
      requires: [],
      updateAddress: '192.0.2.1',
      note: '',
    };
    const key = { name: 'move.', algorithm: 'hmac-sha256', secret: Buffer.from('a secret of the host, thirty-two').toString('base64') };
    await admin.call('POST', '/api/hosts', { ...host, key });
    const anew = Buffer.alloc(32, 9).toString('base64');
    const env = { WANDERON_DATABASE: server.database, WANDERON_PUBLIC_ADDRESS: server.address };
    const renew = (current: string, former: string) =>
      spawnSync(process.execPath, [join(ROOT, 'command/dist/main.js'), 'keys', 'renew'], {
        env: { ...process.env, ...env, WANDERON_SECRET_KEY: current, WANDERON_FORMER_KEYS: former },
        encoding: 'utf8',
      });
    const sealed = async (): Promise<Buffer> => (await database<{ sealed: Buffer }>('secrets').first('sealed'))!.sealed;
    const before = await sealed();
    // Without the key that it is sealed with nothing is touched, and that is said.
    const without = renew(anew, '');
    expect([without.status, without.stdout, without.stderr]).toEqual([
      1,
      expect.stringMatching(/1 could not be opened/),
      expect.stringMatching(/^secrets\/.*another key/),
    ]);
    expect(await sealed()).toEqual(before);
    expect(renew(anew, SECRET_KEY)).toMatchObject({ status: 0, stdout: expect.stringMatching(/^1 secret was sealed under the new key/) as string });
    expect((await sealed()).equals(before)).toBe(false);
    expect(renew(anew, '')).toMatchObject({ status: 0, stdout: expect.stringMatching(/^0 secrets were sealed/) as string });
  });

  /** A page that is told of changes; what is given waits until the server ends that. */
  function openStream(api: Api): Promise<() => Promise<void>> {
    return new Promise((resolve, reject) => {
      const asked = request(`${server.address}/api/live`, { headers: api.headers, agent: false }, (response) => {
        let isOver = false;
        response.on('data', () => undefined);
        response.on('end', () => (isOver = true));
        response.on('error', () => (isOver = true));
        resolve(() => until('the stream has ended', () => Promise.resolve(isOver), 20).then(() => undefined));
      });
      asked.on('error', reject);
      asked.end();
    });
  }
});
