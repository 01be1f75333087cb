import { DnsHabits, EntryStyle, Ruling, USUAL_HABITS, legSheet } from '@wanderon/core';
import { Api, until } from './api';

/** With which the first administrator is made, and that is changed at once. */
export const FIRST_PASSWORD = 'for the first sign-in alone';
export const DEMO_PASSWORD = 'fennel-and-tide';

interface Scenario {
  domains: { name: string }[];
  hosts: {
    id: string;
    name: string;
    role: string;
    nameservers: { name: string; address: string }[];
    addresses: string[];
    fronts: string[];
    entry?: EntryStyle;
    habits?: Partial<DnsHabits>;
    aliasTarget?: string;
    issuers?: string[];
    holding?: string[];
    provisional?: string;
    requires: unknown[];
    tasks?: unknown[];
    form?: unknown;
    holdsEarly?: boolean;
    isStrange?: boolean;
    key?: unknown;
    note: string;
  }[];
}

interface MoveState {
  id: string;
  legs: {
    id: string;
    steps: { id: string; title: string; state: string; text: string | null }[];
    gate: { open: boolean };
    newNameservers: string[];
    seen: { t0: unknown };
  }[];
}

/** What the new host of the first domain wrote. */
export const FIRST_MAIL = `Welcome to Fernlight! Your package is ready.

Please set these nameservers at your registrar:

  one.fernlight.example
  two.fernlight.example

Your website answers at 203.0.113.110 (IPv4) and 2001:db8:fe11::110 (IPv6).
For www, use a CNAME to sites.fernlight.example.

Your domain ferry-timetable.example has to be added in the panel first.

Kind regards
Fernlight support`;

/** Fennel & Tide's accounts and hosts, and three moves under way; all through the API, as people would. */
export async function fillDemo(
  address: string,
  lab: string,
  { bare = false, empty = false }: { readonly bare?: boolean; readonly empty?: boolean },
): Promise<void> {
  const admin = await new Api(address).signIn('admin', DEMO_PASSWORD);
  for (const [login, name] of [
    ['technician', 'Technician'],
    ['viewer', 'Viewer'],
  ] as const)
    await admin.call('POST', '/api/people', { login, name, role: login, password: DEMO_PASSWORD, mustChange: false });
  if (empty) return;
  const api = await new Api(address).signIn('technician', DEMO_PASSWORD);
  const scenario = (await (await fetch(`${lab}/scenario`)).json()) as Scenario;
  const ids = new Map<string, string>();
  for (const host of scenario.hosts) {
    if (host.isStrange) continue;
    const saved = await api.call<{ id: string }>('POST', '/api/hosts', {
      name: host.name,
      role: host.role,
      nameservers: host.nameservers.map((server) => server.name),
      addresses: host.addresses,
      fronts: host.fronts,
      entry: host.entry ?? null,
      habits: { ...USUAL_HABITS, ...host.habits },
      aliasTarget: host.aliasTarget ?? null,
      issuers: host.issuers ?? [],
      holding: host.holding ?? [],
      provisional: host.provisional ?? '',
      requires: host.requires,
      tasks: host.tasks ?? [],
      form: host.form ?? null,
      holdsEarly: host.holdsEarly ?? true,
      updateAddress: host.nameservers[0]?.address ?? null,
      note: host.note,
      ...(host.key ? { key: host.key } : {}),
    });
    ids.set(host.id, saved.id);
  }
  if (bare) return;
  const hosts = { newDnsHost: ids.get('quillmere')!, newWebHost: ids.get('thornwick')! };
  const look = (id: string): Promise<MoveState> => api.call<MoveState>('GET', `/api/moves/${id}`);
  const done = (id: string, kind: string): Promise<MoveState> =>
    until(`${kind} is done`, async () => {
      const move = await look(id);
      const step = move.legs[0]!.steps.find((one) => one.id === kind)!;
      if (step.state === 'stopped') throw new Error(step.text ?? kind);
      return step.state === 'done' && move;
    });
  // The lab lets time pass quickly, so that the server can look meanwhile.
  const pass = async (seconds: number): Promise<void> => {
    const clock = (): Promise<{ at: number; rate: number }> => api.call('GET', '/api/clock');
    const goal = (await clock()).at + seconds;
    await api.call('POST', '/api/clock', { jump: seconds });
    await until('time has passed', async () => (await clock()).at >= goal);
  };
  const legOf = async (id: string): Promise<string> => `/api/legs/${(await look(id)).legs[0]!.id}`;
  const begin = async (domain: string, scope: 'whole' | 'name' = 'whole'): Promise<string> => {
    const { id } = await api.call<MoveState>('POST', '/api/moves', { domain, scope });
    await done(id, 'survey');
    return id;
  };
  const prepare = async (domain: string, ascii: string): Promise<string> => {
    const id = await begin(domain);
    await api.call('PUT', `${await legOf(id)}/hosts`, hosts);
    await fetch(`${lab}/quillmere`, { method: 'POST', body: new URLSearchParams({ name: ascii }) });
    await pass(400);
    await api.call('POST', `${await legOf(id)}/push`);
    await api.call('POST', `${await legOf(id)}/approve`, { lowerAt: null, plannedSwitch: null });
    await done(id, 'push');
    return id;
  };
  /** Somebody has typed some rows of its sheet into the panel, and ticked them; one name whole, where the panel appends the domain. */
  const typing = async (id: string): Promise<void> => {
    const leg = await legOf(id);
    await api.call('PUT', `${leg}/hosts`, { ...hosts, way: 'nameservers', newDnsHost: ids.get('driftwood')! });
    await api.call('POST', `${leg}/ways`, { step: 'push', act: 'leave', subject: 'push' });
    const panel = async (path: string, fields: Record<string, string>): Promise<void> => {
      const { ok } = await fetch(`${lab}/panel/driftwood/${path}`, { method: 'POST', body: new URLSearchParams(fields) });
      if (!ok) throw new Error(`the panel of the lab refuses ${JSON.stringify(fields)}`);
    };
    await panel('domain', { name: 'seed-library.example' });
    const { rulings } = await api.call<{ rulings: Ruling[] }>('GET', `${leg}/ledger`);
    const entry = scenario.hosts.find((host) => host.id === 'driftwood')!.entry!;
    const rows = legSheet({ kind: 'delegation', isBack: false, rulings, served: null }, 'seed-library.example.', { entry });
    for (const [index, { id: row, entry: typed }] of rows.slice(0, 7).entries()) {
      const { name, type, priority = '', value, ttl = '' } = typed!;
      await panel('add', { zone: 'seed-library.example.', name: index === 6 ? `${name}.seed-library.example` : name, type, priority, value, ttl });
      await api.call('POST', `${leg}/typed`, { row, typed: true });
    }
    // It is read back once more.
    await pass(300);
  };
  // First what a first day is like: nobody described its places, and all that is known of the new one is a mail.
  const { id: ferry } = await api.call<MoveState>('POST', '/api/moves', { domain: 'ferry-timetable.example' });
  await api.call('PUT', `/api/moves/${ferry}/note`, { text: FIRST_MAIL, seen: '' });
  await done(ferry, 'survey');
  // One name that leads elsewhere soon, where its records are,
  const scores = await begin('scores.tidewater-choir.example', 'name');
  await api.call('PUT', `${await legOf(scores)}/hosts`, { way: 'repoint', newDnsHost: null, newWebHost: hosts.newWebHost });
  await api.call('POST', `${await legOf(scores)}/approve`, { lowerAt: null, plannedSwitch: null });
  // one whose old answers are draining away,
  const draining = await prepare('crèmerie-alder.example', 'xn--crmerie-alder-xgb.example');
  await done(draining, 'lower');
  await pass(480);
  await done(draining, 'lowered');
  await done(draining, 'served');
  await pass(12_000);
  const ready = await until('the gate is open', async () => {
    const move = await look(draining);
    if (move.legs[0]!.gate.open) return move;
    await pass(600);
    return undefined;
  });
  await api.call('POST', `${await legOf(draining)}/submitted`);
  await fetch(`${lab}/registrar/domain`, {
    method: 'POST',
    body: new URLSearchParams([['name', 'xn--crmerie-alder-xgb.example.'], ...ready.legs[0]!.newNameservers.map((name): [string, string] => ['ns', name])]),
  });
  await pass(300);
  await until('the switch is seen', async () => {
    const move = await look(draining);
    if (move.legs[0]!.seen.t0 !== null) return true;
    // A look that came just before the registry published is followed by the next only in time of the lab.
    await pass(60);
    return false;
  });
  // one whose old TTLs are running out, and one that has just been surveyed.
  await prepare('gull-radio.example', 'gull-radio.example');
  await pass(1500);
  const chosen = await begin('https://www.canoe-yard.example/boats');
  await api.call('PUT', `${await legOf(chosen)}/hosts`, { ...hosts, newWebHost: ids.get('larkspur')! });
  await fetch(`${lab}/larkspur/domain`, { method: 'POST', body: new URLSearchParams({ name: 'canoe-yard.example' }) });
  const added = (await look(chosen)).legs[0]!.steps.find((step) => step.title === 'Add the domain')!;
  await api.call('POST', `${await legOf(chosen)}/ways`, { step: added.id, act: 'done', subject: added.id });
  await begin('allotment-society.example');
  // One whose zone somebody types at a host that takes no updates, with a slip on the way,
  await typing(await begin('seed-library.example'));
  // and one that goes in two legs, from a host that answers otherwise than it stores.
  const inTurn = await begin('regatta-club.example');
  await api.call('PUT', `${await legOf(inTurn)}/hosts`, { ...hosts, way: 'nameservers first' });
  // A look at everything the agency has, and at one domain that a client believes to have.
  const domains = [...scenario.domains.map((domain) => domain.name), 'mislaid-lantern.example'];
  const { id } = await api.call<{ id: string }>('POST', '/api/sweeps', { name: 'Before the spring moves', text: domains.join('\n') });
  await until('the sweep is done', async () => (await api.call<{ state: string }>('GET', `/api/sweeps/${id}`)).state === 'done');
}
