import { until } from '../../../command/src/api';
import { Driver } from '../support/drive';
import { RealDomain, RealMoves } from '../support/realMoves';
import { RESOLVER, dig, transferredLines } from '../support/realServers';

const isRoot = process.getuid?.() === 0;
const seed = Number(process.env['SEED'] ?? Math.floor(Math.random() * 2 ** 31));
/** Domains that move at once; `DOMAINS=` asks for more. */
const COUNT = Number(process.env['DOMAINS'] ?? 6);

/** Draws from a seed, the same every time (mulberry32). */
function drawing(state: number): (below: number) => number {
  return (below) => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) % below;
  };
}

const DOMAINS = Array.from({ length: COUNT }, (_, index): RealDomain => ({
  name: `edited-${index}.example`,
  old: index % 2 === 0 ? 'bind' : 'knot',
  fresh: index % 3 === 0 ? 'bind' : 'knot',
  more: 'shop A 192.0.2.80\nnews TXT "weekly"',
}));

/** Somebody else edits the old zone all the while; a resolver that the program does not know asks all the while, and judges. */
(isRoot ? describe : describe.skip)(`zones that somebody edits at random from survey to settled (SEED=${seed}; port 53 on loopback, so as root)`, () => {
  const real = new RealMoves(DOMAINS, { lookouts: '' });
  let asking = true;

  beforeAll(() => real.open());
  afterEach(() => real.over());
  afterAll(async () => {
    asking = false;
    await real.close();
  });

  /** One edit of the kind that people make: a TTL up or down, another value, a name that comes or goes. */
  const edit = (domain: RealDomain, draw: (below: number) => number, round: number): Promise<void> => {
    const { name } = domain;
    const www = (ttl: number, address = '192.0.2.80'): string[] => [`delete www.${name}. A`, `add www.${name}. ${ttl} A ${address}`];
    const edits = [
      www(12 + draw(10)),
      www(2),
      www(6, `192.0.2.${90 + draw(9)}`),
      [`add found-${round}.${name}. 5 A 192.0.2.${100 + draw(99)}`],
      [`delete ${name}. MX`, `add ${name}. ${2 + draw(9)} MX ${10 + draw(9)} mail.${name}.`],
      [`delete news.${name}. TXT`, `add news.${name}. 4 TXT "issue ${round}"`],
      [`delete found-${round - 1}.${name}. A`],
    ];
    return real.edit(real.oldAddress(domain), domain, ...edits[draw(edits.length)]!);
  };

  const namesAt = async (address: string, domain: RealDomain): Promise<Set<string>> =>
    new Set((await real.lines(address, domain)).map((line) => line.split(' ')[0]!).filter((name) => name.endsWith(`${domain.name}.`)));

  /** What a push has stopped at is tried again; what somebody took away meanwhile is no reason to wait. */
  const served = async (driver: Driver): Promise<void> => {
    const push = (await driver.move()).legs[0]!.steps.find((step) => step.id === 'push')!;
    const way = push.ways.find((one) => one.act === 'take' || one.act === 'retry');
    if (push.state === 'stopped' && way) await driver.way('push', way.act).catch(() => undefined);
  };

  /** From survey to settled; gives what the resolver answers afterwards beside what is planned, and the names that were lost. */
  async function moved(domain: RealDomain, index: number): Promise<{ held: string[]; planned: string[]; lost: string[] }> {
    const draw = drawing(seed + index);
    let [editing, round] = [true, 0];
    const editor = (async () => {
      while (editing) {
        await edit(domain, draw, (round += 1));
        await new Promise((resolve) => setTimeout(resolve, 300 + draw(2500)));
      }
    })();
    const visitor = (async () => {
      while (asking) {
        for (const question of [
          ['www', 'A'],
          ['', 'A'],
          ['', 'MX'],
          ['', 'NS'],
          ['news', 'TXT'],
        ] as const)
          await dig(RESOLVER, [question[0] === '' ? domain.name : `${question[0]}.${domain.name}`, question[1], '+short']);
        await new Promise((resolve) => setTimeout(resolve, 200 + draw(800)));
      }
    })();
    const driver: Driver = await real.chosen(domain);
    await driver.act('/approve', { lowerAt: null, plannedSwitch: null, lowerTo: 2 });
    await driver.act('/push');
    let before = new Set<string>();
    let lacking = '';
    await until(
      () => `${domain.name} is let through the gate: ${lacking}`,
      async () => {
        const gate = (await driver.move()).legs[0]!.gate;
        // What somebody changed meanwhile is taken into the plan where it is told.
        if (gate.lines.some((line) => line.key === 'drift' && line.ways.length > 0)) await driver.way('drift', 'adopt').catch(() => undefined);
        if (gate.lines.some((line) => line.key === 'lowered' && line.ways.some((way) => way.act === 'retry')))
          await driver.way('lowered', 'retry').catch(() => undefined);
        if (gate.lines.some((line) => line.key === 'served' && !line.passes)) await served(driver);
        await driver.letPass(['website']);
        lacking = gate.lines.flatMap((line) => (line.passes ? [] : [`${line.text} ${line.evidence ?? ''}`])).join(' ');
        // People pause now and then.
        editing = round < 6 + draw(4);
        before = await namesAt(real.oldAddress(domain), domain);
        return !editing && gate.open ? driver.tried('/submitted') : undefined;
      },
      150,
    );
    await editor;
    await real.delegate(domain, [real.newName(domain)]);
    await driver.done('switch');
    // And go on where nobody looks any more.
    await edit(domain, draw, 100);
    await driver.done('settle');
    const { rulings } = await driver.ledger();
    const planned = rulings.flatMap((row) =>
      row.planned && ['A', 'MX', 'TXT'].includes(row.type) ? [{ owner: row.owner, type: row.type, data: row.planned.data }] : [],
    );
    const held = await Promise.all(
      planned.map(async ({ owner, type }) => (await dig(RESOLVER, [owner, type, '+short'])).stdout.trim().split('\n').sort().join()),
    );
    const fresh = await namesAt(real.newAddress(domain), domain);
    const left = new Set(rulings.filter((row) => row.ruling === 'drop').map((row) => row.owner));
    void visitor;
    return {
      held: held.map((text, at) => `${planned[at]!.owner} ${planned[at]!.type} ${text}`),
      planned: planned.map(({ owner, type, data }) => `${owner} ${type} ${[...data].sort().join()}`),
      lost: [...before].filter((name) => !fresh.has(name) && !left.has(name)),
    };
  }

  it('no resolver holds anything that is not planned once a move is settled, and no name is lost', async () => {
    const results = await Promise.all(DOMAINS.map(moved));
    for (const { held, planned, lost } of results) {
      expect(held).toEqual(planned);
      expect(lost).toEqual([]);
      expect(planned.length).toBeGreaterThan(4);
    }
    // Somebody did edit: of each zone something came after the survey.
    expect((await Promise.all(DOMAINS.map((domain) => transferredLines(real.newAddress(domain), domain.name)))).join()).toMatch(/found-\d|issue \d/);
  });
});
