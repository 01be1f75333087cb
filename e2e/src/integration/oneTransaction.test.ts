import { join } from 'node:path';
import { Acted, LedgerPage, MoveView, ResolverView } from '@wanderon/contract';
import { Lab } from '@wanderon/lab';
import { Knex } from 'knex';
import { USUAL_HABITS, rowSeen } from '@wanderon/core';
import { Api, until } from '../../../command/src/api';
import { DEMO_PASSWORD } from '../../../command/src/demoData';
import { ROOT } from '../../../command/src/processes';
import { ALIAS, LargeLedger, insertLedger } from '../support/largeLedger';
import { FailingActs } from '../support/failingActs';
import { codeAt } from '../support/totp';
import { Driver } from '../support/drive';
import { ServerUnderTest, openWorld } from '../support/world';

/** Waits until the engine has nothing in hand; until somebody acts, it has nothing to do then, since the clock stands. */
async function atRest(database: Knex, lab: Lab): Promise<void> {
  lab.clock.setRate(0);
  await until('the engine rests', async () => {
    const [claimed, due] = [
      await database('claims').first('move_id'),
      await database('moves').where({ state: 'open' }).where('wake_at', '<=', lab.clock.now()).first('id'),
    ];
    return !claimed && !due;
  });
}

/** The code that an app shows now: the server's clock is the machine's here. */
const now = (secret: string): string => codeAt(secret, Date.now() / 1000);
const OTHER_PASSWORD = 'something else that is long enough';

/** Changing routes that are not driven here, and why. */
const NOT_DRIVEN: Readonly<Record<string, string>> = {
  'POST /api/begin': 'while nobody has an account alone; `ownPlace.test` does it, and `addFirst` writes account and event in one transaction',
  'POST /api/domains/read': 'reads alone',
  'POST /api/legs/{leg}/front': 'reads alone',
  'POST /api/resolvers/try': 'asks a resolver, and writes nothing',
  'POST /api/legs/{leg}/cursor': 'is kept nowhere',
  'POST /api/clock': 'is there in the lab alone',
};
/** Acts on a move that need it at its very end, or in the middle of something; all of them are done by `MoveActs.act`, as those that are driven are. */
const BY_THE_SAME_WAY = /^POST \/api\/(?:legs\/\{leg\}\/(?:next|stop-survey|rules\/\{rule\})|moves\/\{id\}\/close)$/;

describe('a person’s act and its word in the trail', () => {
  const server = new ServerUnderTest({ WANDERON_ROOT_HINTS: join(ROOT, 'e2e/corpus/hints') });
  server.mayFail = true;
  let acts: FailingActs;
  let api: Api;
  let ledger: LargeLedger;
  const act: FailingActs['act'] = (route, request) => acts.act(route, request);

  beforeAll(async () => {
    await server.open();
    api = await server.signIn('admin');
    acts = new FailingActs(server.database, api);
    ledger = await insertLedger(acts.database, ALIAS + 1);
    await acts.prepare();
  });
  afterAll(async () => {
    await acts.close();
    await server.close();
  });

  it('are one transaction in what is done about people', async () => {
    const one = { login: 'one', name: 'One', role: 'technician', password: DEMO_PASSWORD, mustChange: false };
    const { id } = await act<{ id: string }>('POST /api/people', { method: 'POST', path: '/api/people', body: one });
    const edit = { name: 'First', role: 'technician', disabled: false, demanded: false };
    await act('PUT /api/people/{id}', { method: 'PUT', path: `/api/people/${id}`, body: edit });
    await server.signIn('one');
    await act('POST /api/people/{id}/sign-out', { method: 'POST', path: `/api/people/${id}/sign-out` });
    await act('PUT /api/people/{id}/password', { method: 'PUT', path: `/api/people/${id}/password`, body: { password: OTHER_PASSWORD } });
  });

  it('are one transaction in what people do about their own account', async () => {
    await api.call('POST', '/api/people', { login: 'two', name: 'Two', role: 'technician', password: DEMO_PASSWORD, mustChange: false });
    const { id } = await acts.database('people').where({ login: 'two' }).first<{ id: string }>('id');
    // Nobody is signed in of whom it is not on record.
    const body = { login: 'two', password: DEMO_PASSWORD };
    await act('POST /api/sign-in', { method: 'POST', path: '/api/sign-in', body, headers: {} });
    const [own, other] = [await server.signIn('two'), await server.signIn('two')];
    const session = (await other.call<{ sessions: { id: string; own: boolean }[] }>('GET', '/api/me/sessions')).sessions.find((entry) => entry.own)!;
    const { headers } = own;
    await act('DELETE /api/me/sessions/{id}', { method: 'DELETE', path: `/api/me/sessions/${session.id}`, headers });
    const { secret } = await own.call<{ secret: string }>('POST', '/api/me/second-factor', { password: DEMO_PASSWORD });
    acts.driven.add('POST /api/me/second-factor');
    await act('PUT /api/me/second-factor', { method: 'PUT', path: '/api/me/second-factor', body: { code: now(secret) }, headers });
    const password = { password: DEMO_PASSWORD };
    await act('POST /api/me/second-factor/codes', { method: 'POST', path: '/api/me/second-factor/codes', body: password, headers });
    await act('POST /api/me/second-factor/off', { method: 'POST', path: '/api/me/second-factor/off', body: password, headers });
    const change = { current: DEMO_PASSWORD, password: OTHER_PASSWORD };
    await act('PUT /api/me/password', { method: 'PUT', path: '/api/me/password', body: change, headers });
    await act('POST /api/sign-out', { method: 'POST', path: '/api/sign-out', headers });
    const again = await new Api(server.address).signIn('two', OTHER_PASSWORD);
    const offer = await again.call<{ secret: string }>('POST', '/api/me/second-factor', { password: OTHER_PASSWORD });
    await again.call('PUT', '/api/me/second-factor', { code: now(offer.secret) });
    await act('DELETE /api/people/{id}/second-factor', { method: 'DELETE', path: `/api/people/${id}/second-factor` });
  });

  it('are one transaction in what is known of hosts, their keys included', async () => {
    const host = {
      name: 'A host',
      role: 'dns',
      nameservers: ['ns1.host.example.'],
      addresses: ['192.0.2.53'],
      aliasTarget: null,
      requires: [],
      updateAddress: '192.0.2.53',
      note: '',
    };
    const key = { name: 'a.key.', algorithm: 'hmac-sha256', secret: Buffer.alloc(32, 9).toString('base64') };
    const { id } = await act<{ id: string }>('POST /api/hosts', { method: 'POST', path: '/api/hosts', body: { ...host, key } });
    await act('PUT /api/hosts/{id}', { method: 'PUT', path: `/api/hosts/${id}`, body: { ...host, name: 'Another name' } });
    const where = { link: 'https://panel.host.example/', path: 'Domains', first: '' };
    await act('PUT /api/hosts/{id}/where/{act}', { method: 'PUT', path: `/api/hosts/${id}/where/records`, body: where });
    await act('PUT /api/hosts/{id}/habits', { method: 'PUT', path: `/api/hosts/${id}/habits`, body: { names: 'whole' } });
  });

  it('are one transaction in which resolvers are watched from', async () => {
    const resolver = { name: 'Office', address: '192.0.2.53', over: 'udp', anyway: true };
    const { resolvers } = await act<{ resolvers: ResolverView[] }>('POST /api/resolvers', { method: 'POST', path: '/api/resolvers', body: resolver });
    const { id } = resolvers.find(({ name }) => name === 'Office')!;
    await act('PUT /api/resolvers/order', { method: 'PUT', path: '/api/resolvers/order', body: { ids: [id] } });
    await act('DELETE /api/resolvers/{id}', { method: 'DELETE', path: `/api/resolvers/${id}` });
  });

  it('are one transaction in what is decided of a move', async () => {
    const { leg, rows, move } = ledger;
    const at = `/api/legs/${leg}`;
    const on = <T = Acted>(method: string, path: string, body?: unknown, route = path): Promise<T> =>
      act<T>(`${method} /api/legs/{leg}${route}`, { method, path: `${at}${path}`, body });
    const page = (): Promise<LedgerPage> => api.call<LedgerPage>('GET', `${at}/ledger?limit=2000`);
    const set = { owner: rows[5]!.owner, type: 'A' };
    await on('PUT', `/rulings/${rows[3]!.id}`, { ruling: 'drop' }, '/rulings/{ruling}');
    await on('POST', '/undo');
    await on('POST', '/redo');
    await on('PUT', '/rulings', { rows: [rows[4]!.id, rows[5]!.id], ruling: 'drop' });
    await on('POST', '/rulings', { owner: 'fresh', type: 'A', ttl: '300', data: '192.0.2.9' });
    const like = (await page()).rulings.filter((row) => row.owner.includes('name-60'));
    const seen = like.map((row) => rowSeen({ ruling: row.ruling, planned: row.planned ?? undefined }));
    await on('PUT', '/rules', { like: 'name-60', group: null, ruling: 'drop', rows: like.map((row) => row.id), seen });
    const [rule] = (await page()).rules;
    await on('DELETE', `/rules/${rule!.id}`, undefined, '/rules/{rule}');
    await on('POST', `/rows/${rows[6]!.id}/comments`, { text: 'Look.' }, '/rows/{row}/comments');
    const story = await api.call<{ comments: { id: number }[] }>('GET', `${at}/rows/${rows[6]!.id}`);
    await on('DELETE', `/comments/${story.comments[0]!.id}`, undefined, '/comments/{comment}');
    const remark = (await page()).remarks.find((one) => one.code === 'alias-beside-data')!;
    const of = { owner: remark.owner, type: remark.type, code: remark.code };
    await on('POST', '/remarks', { ...of, fact: remark.fact, reason: 'it may be so' });
    await on('POST', '/mend', { ...of, fix: remark.fixes[0]!.key });
    const sets = (await page()).rulings.flatMap((row) => row.planned ?? []).slice(1);
    await on('PUT', '/plan', { sets });
    await on('POST', '/panel', { sets: [{ ...set, ttl: 300, data: ['192.0.2.1'] }] });
    await on('POST', '/typed', { row: 'a row', typed: true });
    const noPlace = { nameservers: [], addresses: [], aliasTarget: null, requires: [], note: '', updateAddress: null };
    const registrar = await api.call<{ id: string }>('POST', '/api/hosts', { ...noPlace, name: 'A registrar', role: 'registrar' });
    await on('PUT', '/registrar', { host: registrar.id });
    await act('PUT /api/moves/{id}/note', { method: 'PUT', path: `/api/moves/${move}/note`, body: { text: 'The client is away.', seen: '' } });
    await on('POST', '/tasks', { title: 'Ask the shop', when: 'before', note: '' });
    const { legs } = await api.call<MoveView>('GET', `/api/moves/${move}`);
    await on('DELETE', `/tasks/${legs[0]!.ownTasks[0]!.id}`, undefined, '/tasks/{task}');
    await on('PUT', '/registration', { registrar: 'A registrar', expires: null, locked: false });
    await on('POST', '/approve', { lowerAt: null, plannedSwitch: null, lowerTo: 300 });
    await on('POST', '/withdraw');
    const link = await on<{ id: string; path: string }>('POST', '/sheet-links', { days: 1 });
    const sheet = `/api/sheets/${link.path.split('/').at(-1)!}`;
    const open = (await (await fetch(`${server.address}${sheet}`)).json()) as { content: { rows: { id: string }[] } };
    const tick = { row: open.content.rows[0]!.id, typed: true };
    await act('POST /api/sheets/{secret}/typed', { method: 'POST', path: `${sheet}/typed`, body: tick, headers: {} });
    await on('POST', `/sheet-links/${link.id}/withdraw`, undefined, '/sheet-links/{id}/withdraw');
    await act('DELETE /api/moves/{id}', { method: 'DELETE', path: `/api/moves/${move}` });
  });

  it('are one transaction in a sweep', async () => {
    const body = { name: 'Some', text: 'one.example\ntwo.example' };
    const { id } = await act<{ id: string }>('POST /api/sweeps', { method: 'POST', path: '/api/sweeps', body });
    // What the sweep does meanwhile is no act: it has come to its end.
    await until('the sweep is over', async () => (await api.call<{ waiting: number; state: string }>('GET', `/api/sweeps/${id}`)).state !== 'running');
    await act('POST /api/sweeps/{id}', { method: 'POST', path: `/api/sweeps/${id}`, body: { action: 'retry' } });
  });

  it('are one transaction along a move, from its survey to the way back', async () => {
    const world = await openWorld({ rate: 60 });
    world.server.mayFail = true;
    const admin = await world.server.signIn('admin');
    const along: FailingActs = new FailingActs(world.server.database, admin, (): Promise<void> => atRest(along.database, world.lab));
    try {
      await along.prepare();
      const send = async <T = Acted>(route: string, body?: unknown, more: { path?: string; words?: number } = {}): Promise<T> => {
        const [method, path] = route.split(' ') as [string, string];
        const done = await along.act<T>(route, { method, path: more.path ?? path, body, ...(more.words && { words: more.words }) });
        world.lab.clock.setRate(60);
        return done;
      };
      const begin = async (domain: string): Promise<[Driver, (route: string, body?: unknown, words?: number) => Promise<unknown>]> => {
        const { id } = await send('POST /api/moves', { domain, scope: 'whole' });
        const driver = new Driver(admin, id);
        await driver.done('survey');
        const at = await driver.leg();
        return [
          driver,
          (route, body, words) => {
            const [method, path] = route.split(' ') as [string, string];
            return send(`${method} /api/legs/{leg}${path}`, body, { path: `${at}${path}`, ...(words && { words }) });
          },
        ];
      };
      const surveyed = async (driver: Driver): Promise<void> => {
        await driver.until(
          'the survey is taken',
          (move) => !move.legs[0]!.surveyAgain && move.legs[0]!.steps.some(({ id, state }) => id === 'survey' && state === 'done'),
        );
      };

      const [library, onLibrary] = await begin('seed-library.example');
      const hint = (await library.survey()).hints.find((one) => one.owner === 'archive.seed-library.example.')!;
      await onLibrary('POST /hints', { owner: hint.owner, text: hint.text, answer: 'retired' });
      await onLibrary('POST /hints/name', { owner: hint.owner, text: hint.text, name: 'deep.archive' });
      await surveyed(library);
      const [, onClub] = await begin('regatta-club.example');
      await onClub('PUT /stored', { owner: 'regatta-club.example.', type: 'A', data: '198.51.100.80' });

      const [choir, onChoir] = await begin('tidewater-choir.example');
      await onChoir('PUT /hosts', { newDnsHost: await choir.hostId('Brackenfold'), newWebHost: await choir.hostId('Thornwick') });
      await onChoir('POST /fronting', { owner: 'tidewater-choir.example.', state: 'on' });

      const [museum, onMuseum] = await begin('lighthouse-museum.example');
      const items = ['one', 'two'].map((word) => ({ kind: 'nameserver', owner: '@', type: 'NS', data: `${word}.hearth.example.` }));
      await onMuseum('PUT /hosts', { way: 'nameservers', newDnsHost: null, newWebHost: null, given: { items } });
      const place = (await museum.move()).legs[0]!.newDnsHost!;
      await send('POST /api/hosts/{id}/keep', { name: 'Hearth, as we know it' }, { path: `/api/hosts/${place}/keep` });

      const { key } = world.lab.hosts.find((host) => host.id === 'quillmere')!;
      const noPlace = { nameservers: [], addresses: [], aliasTarget: null, requires: [], note: '', updateAddress: null };
      const habits = { ...USUAL_HABITS, nameservers: 'by domain', warnings: ['Name looks odd'] };
      await admin.call('POST', '/api/hosts', { ...noPlace, name: 'Pool', role: 'dns', key, habits });
      const requires = [{ owner: '@', type: 'TXT', data: '' }];
      await admin.call('POST', '/api/hosts', { ...noPlace, name: 'Asking', role: 'web', addresses: ['203.0.113.80'], requires });
      const [radio, onRadio] = await begin('gull-radio.example');
      await onRadio('PUT /hosts', { newDnsHost: await radio.hostId('Pool'), newWebHost: await radio.hostId('Asking') });
      await onRadio('PUT /nameservers', { names: ['ns1.quillmere.example', 'ns3.quillmere.example'] });
      await onRadio('POST /given', { requirement: (await radio.move()).legs[0]!.asked!.needs[0]!.id, data: 'token=k2f9' });

      const [yard, onYard] = await begin('canoe-yard.example');
      await onYard('POST /in-hand', { names: ['slipway.canoe-yard.example.'], sets: [] }, 1);
      await surveyed(yard);
      await onYard('PUT /pages', { pages: ['www.canoe-yard.example/'] }, 2);
      await surveyed(yard);
      await onYard('POST /survey');
      await surveyed(yard);
      await onYard('PUT /purposes', { owner: 'canoe-yard.example.', type: 'A', purpose: 'website' });
      await onYard('PUT /hosts', { newDnsHost: await yard.hostId('Quillmere'), newWebHost: await yard.hostId('Thornwick') });
      await onYard('PUT /site', { main: 'www.canoe-yard.example', provisional: null }, 2);
      await onYard('POST /website');
      await onYard('POST /push');
      await yard.until('the push is refused', (move) => move.legs[0]!.steps.some((step) => step.id === 'push' && step.state === 'stopped'));
      world.lab.addDomain('quillmere', 'canoe-yard.example.');
      await onYard('POST /ways', { step: 'push', act: 'retry', subject: 'push' });
      await yard.done('served');
      await yard.act('/approve', { lowerAt: null, plannedSwitch: null, lowerTo: 300 });
      await yard.done('lowered');
      await onYard('POST /look', { kind: 'parent' });
      const line = (await yard.move()).legs[0]!.gate.lines.find((one) => one.waivable)!;
      await onYard('POST /waive', { line: line.key, facts: line.facts, reason: 'it may be so' });
      world.lab.clock.setRate(3600);
      await yard.until('the gate opens', (move) => move.legs[0]!.gate.open);
      world.lab.clock.setRate(60);
      await onYard('POST /submitted');
      world.lab.changeNameservers('canoe-yard.example.', (await yard.move()).legs[0]!.newNameservers);
      await yard.done('switch');
      await onYard('POST /back', { how: 'nameservers' }, 3);
      for (const route of along.driven) acts.driven.add(route);
    } finally {
      await along.close();
      await world.close();
    }
  });

  it('are so in every act that there is', async () => {
    const document = await api.call<{ paths: Record<string, Record<string, unknown>> }>('GET', '/api/openapi.json');
    const routes = Object.entries(document.paths).flatMap(([path, methods]) => Object.keys(methods).map((method) => `${method.toUpperCase()} ${path}`));
    const left = routes.filter((route) => !route.startsWith('GET ') && !acts.driven.has(route) && !(route in NOT_DRIVEN) && !BY_THE_SAME_WAY.test(route));
    expect(left).toEqual([]);
    expect(acts.driven.size).toBeGreaterThan(50);
  });
});
