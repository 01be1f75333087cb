import { Message, Name, RCODE, ResourceRecord, TYPE_CODES, parseRdata, reply } from '@wanderon/core';
import { Driver } from '../support/drive';
import { Bend, BentServer } from '../support/bentServer';
import { RealDomain, RealMoves, refused, said } from '../support/realMoves';
import { SideBySide } from '../support/sideBySide';
import { KEY, OLD, loopback } from '../support/realServers';

const isRoot = process.getuid?.() === 0;

const ns = (owner: string, name: string): ResourceRecord => ({
  owner: Name.parse(owner),
  type: TYPE_CODES.NS,
  cls: 1,
  ttl: 5,
  data: parseRdata(TYPE_CODES.NS, name),
});

function withNs(answer: Message, name: string): Message {
  const owner = answer.questions[0]!.name.toString();
  return { ...answer, answers: [ns(owner, name)] };
}

let turn = 0;
function byTurns(answer: Message): Message {
  const [one] = answer.answers;
  if (!one || one.type !== TYPE_CODES.A || !one.owner.toString().startsWith('api.')) return answer;
  return { ...answer, answers: [{ ...one, data: parseRdata(TYPE_CODES.A, `192.0.2.${200 + (turn++ % 2)}`) }] };
}

const LEFT = Name.parse('no-longer-there.example.');

function referral(request: Message, zone: Name, name: string): Message {
  return reply(request, { authorities: [ns(zone.toString(), name)] });
}

/** Hosts that are a real one behind something that bends its answers; by the first label of their servers' zone. */
const BENT: Record<string, { readonly address: string; readonly bend: Bend; readonly tcp: number }> = {
  // Behind a firewall that lets no TCP through.
  shut: { address: loopback(21), bend: (_request, answer) => answer, tcp: 0 },
  // Of an age that knows no EDNS.
  old: {
    address: loopback(22),
    bend: (request, answer) => (request.edns ? { ...answer, rcode: RCODE.FORMERR, answers: [], authorities: [], additionals: [], edns: undefined } : answer),
    tcp: Infinity,
  },
  // Behind a box that drops what it does not know.
  mute: { address: loopback(23), bend: (request, answer) => (request.edns ? undefined : answer), tcp: Infinity },
  // It answers, and never claims authority.
  humble: { address: loopback(24), bend: (_request, answer) => ({ ...answer, authoritative: false }), tcp: Infinity },
  // It takes an update of its NS set, and goes on answering the one before.
  stays: {
    address: loopback(26),
    bend: (request, answer) => (state.stays && request.questions[0]?.type === TYPE_CODES.NS ? withNs(answer, 'ns1.stays.example.') : answer),
    tcp: Infinity,
  },
  // It lets go of the zone, and sends whoever asks to its old servers.
  refers: {
    address: loopback(27),
    bend: (request, answer) => (state.refers && request.questions[0]!.name.isAtOrBelow(LEFT) ? referral(request, LEFT, 'ns1.refers.example.') : answer),
    tcp: Infinity,
  },
  // It answers one name by turns with one address and another.
  turns: { address: loopback(28), bend: (_request, answer) => byTurns(answer), tcp: 0 },
  // It sends so much of a transfer, and closes.
  cut: { address: loopback(25), bend: (_request, answer) => answer, tcp: 30_000 },
};
/** Servers of these hosts do so once a test says so. */
const state = { stays: false, refers: false };
const LONG = Array.from({ length: 12 }, (_, index) => `"proof-${index}=${'x'.repeat(200)}"`).join(' ');
const at = (host: string, name: string, more = ''): RealDomain => ({
  name,
  more,
  delegation: `${name}. 3 NS ns1.${host}.example.`,
  oldNs: `@ 5 NS ns1.${host}.example.`,
});
const DOMAINS = {
  shut: at('shut', 'long-text.example', `@ TXT ${LONG}`),
  old: at('old', 'before-edns.example'),
  mute: at('mute', 'drops-edns.example'),
  cut: at('cut', 'cut-short.example', Array.from({ length: 1500 }, (_, index) => `unheard-of-${index} A 192.0.2.${(index % 250) + 1}`).join('\n')),
  stays: at('stays', 'never-turns.example'),
  refers: at('refers', 'no-longer-there.example'),
  humble: at('humble', 'no-authority.example'),
  turns: at('turns', 'by-turns.example', 'api A 192.0.2.200'),
};

(isRoot ? describe : describe.skip)('old servers that bend what they answer (port 53 on loopback, so as root)', () => {
  const hosts = Object.entries(BENT).map(([host, { address }]): RealDomain => ({
    name: `${host}.example`,
    delegation: ' ',
    oldNs: `@ 5 NS ns1.${host}.example.`,
    more: `ns1 A ${address}`,
  }));
  const real = new RealMoves([...Object.values(DOMAINS), ...hosts], {
    // The program watches from nowhere; unbound, which it does not know, judges.
    lookouts: '',
    parentMore: Object.entries(BENT)
      .map(([host, { address }]) => `${host}.example. NS ns1.${host}.example.\nns1.${host}.example. A ${address}\n`)
      .join(''),
  });
  const bent: BentServer[] = [];

  beforeAll(async () => {
    await real.open();
    for (const { address, bend, tcp } of Object.values(BENT)) bent.push(await BentServer.open(address, OLD, bend, { tcp }));
  });
  afterAll(async () => {
    for (const one of bent) one.close();
    await real.close();
  });
  const beside = new SideBySide(4);

  const findings = async (driver: Driver): Promise<string> => (await driver.survey()).findings.map((one) => `${one.code}: ${one.text}`).join('\n');

  beside.it('a set that does not fit and cannot be asked again is a hint with its name and a line of the gate, and never lost', async () => {
    const driver = await real.chosen(DOMAINS.shut);
    const survey = await driver.survey();
    expect(survey.coverage.grade).toBe('partial');
    expect(survey.hints).toContainEqual(expect.objectContaining({ owner: 'long-text.example.', unread: 'TXT' }));
    expect(await findings(driver)).toMatch(/no-tcp: .*answers over UDP and not over TCP/);
    await said(driver, /The survey could not read everything\. long-text\.example: TXT is here and could not be read/);
    await driver.act('/rulings', { owner: 'long-text.example.', type: 'TXT', ttl: '60', data: '"v=spf1 mx -all"' });
    await said(driver, /What the survey could not read is in the plan/);
  });

  it.each([DOMAINS.old, DOMAINS.mute])('$name: one that takes no EDNS is asked without, and is not lame', async (domain) => {
    const driver = await real.chosen(domain);
    expect(await findings(driver)).not.toMatch(/^(lame|silent)/m);
    await driver.act('/approve', { lowerAt: null, plannedSwitch: null, lowerTo: 2 });
    await driver.act('/push');
    await driver.done('served');
    // It takes no update from here: somebody lowers behind it.
    await driver.until('it is asked', (move) => move.legs[0]!.gate.lines.some((line) => line.key === 'lowered'));
    expect((await driver.survey()).sets.map((set) => `${set.owner} ${set.type}`)).toEqual(
      expect.arrayContaining([`www.${domain.name}. A`, `${domain.name}. MX`]),
    );
  });

  beside.it('a transfer that is cut short is no inventory, and what it brought is not thrown away', async () => {
    await real.addHost('cut host', { nameservers: ['ns1.cut.example.'], key: KEY });
    const driver = await real.chosen(DOMAINS.cut);
    const { coverage, sets } = await driver.survey();
    expect(coverage.grade).toBe('partial');
    expect(coverage.reasons.join(' ')).toMatch(/The transfer from ns1\.cut\.example .* broke off after \d+ records/);
    const brought = sets.filter((set) => set.owner.startsWith('unheard-of-')).length;
    expect(brought).toBeGreaterThan(100);
    expect(brought).toBeLessThan(1500);
  });

  beside.it('one that answers by turns is planned with one of its answers, and that is said of the row', async () => {
    const driver = await real.chosen(DOMAINS.turns);
    const { rulings, remarks } = await driver.ledger();
    const row = rulings.find((one) => one.owner.startsWith('api.'))!;
    expect([row.ruling, row.reason]).toEqual(['carry', expect.stringMatching(/answered otherwise from one question to the next/)]);
    expect(remarks.filter((one) => one.owner === row.owner).map((one) => one.code)).toEqual(['varies-as-found']);
  });

  beside.it('one that never claims authority is told as that, and the move goes on with it', async () => {
    const domain = DOMAINS.humble;
    const driver = await real.chosen(domain);
    expect(await findings(driver)).toMatch(/no-authority: .*answers for the zone and does not claim authority/);
    expect(await findings(driver)).not.toMatch(/^lame/m);
    await driver.act('/push');
    await driver.act('/approve', { lowerAt: null, plannedSwitch: null, lowerTo: 2 });
    await refused(driver, '/submitted', /TTLs are not seen lowered/);
    await real.edit(OLD, domain, `delete www.${domain.name}. A`, `add www.${domain.name}. 2 A 192.0.2.80`);
    await driver.until('what it answers is seen', (move) => !JSON.stringify(move.legs[0]!.gate.lines).includes(`TTL of www.${domain.name}`));
  });

  /** Named for what it does instead, with a way on, and then to the end by H and every R. */
  const toTheEnd = async (host: 'stays' | 'refers', words: RegExp): Promise<void> => {
    const domain = DOMAINS[host];
    await real.addHost(`${host} host`, { nameservers: [`ns1.${host}.example.`], key: KEY });
    const driver = await real.lowered(domain);
    await real.submitted(driver);
    state[host] = true;
    await real.delegate(domain, [real.newName(domain)]);
    await driver.done('switch');
    await said(driver, words);
    const step = (await driver.move()).legs[0]!.steps.find((one) => one.id === 'turned')!;
    expect([step.state, step.ways.map((way) => way.means).join()]).toEqual(['doing', expect.stringMatching(/nobody can say until when/)]);
    // Resolvers that renew a delegation there are not bounded: nothing is called finished by itself.
    expect((await driver.move()).legs[0]!.steps.find((one) => one.id === 'settle')!.state).not.toBe('done');
    await driver.way('turned', 'leave');
    const settled = await driver.done('settle');
    expect(settled.legs[0]!.times!.extended.at).toBeNull();
    // What the times say of all others is borne out.
    expect(await real.answer(`www.${domain.name}`)).toBe('203.0.113.80');
    await driver.done('raise');
    expect((await driver.watch()).lookouts).toEqual([]);
    expect((await driver.act('/close')).state).toBe('closed');
  };

  beside.it('one that ignores its new NS set, and one that refers to its old servers, are named and have a way on to the end, with no resolver watched', () =>
    Promise.all([
      toTheEnd('stays', /ns1\.stays\.example still names ns1\.stays\.example/),
      toTheEnd('refers', /ns1\.refers\.example no longer holds the zone and sends resolvers on to ns1\.refers\.example/),
    ]),
  );
});
