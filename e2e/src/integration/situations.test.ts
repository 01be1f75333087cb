import { Driver, asked } from '../support/drive';
import { RealDomain, RealMoves, refused, said } from '../support/realMoves';
import { SideBySide } from '../support/sideBySide';
import { PARENT, dig, transferredLines } from '../support/realServers';

/** Moves under way at once. */
const MOST = 5;
const isRoot = process.getuid?.() === 0;
const LONG = Array.from({ length: 160 }, (_, i) => `"${'text that has to be carried whole '.repeat(7)}${i}"`).join(' ');

const DOMAINS = {
  added: { name: 'added-later.example' },
  foreign: { name: 'foreign-key.example', there: 'k1._domainkey TXT "v=DKIM1; p=somebody"\nmail A 203.0.113.99' },
  drift: { name: 'old-edited.example' },
  vanish: { name: 'new-loses.example', fresh: 'bind' },
  reset: { name: 'ttl-reset.example', old: 'knot', more: 'shop A 192.0.2.80' },
  watch: { name: 'edited-in-watch.example' },
  relapse: { name: 'relapsing.example' },
  large: { name: 'large-sets.example', old: 'knot', fresh: 'bind', more: `long TXT ${LONG}` },
  cut: { name: 'below-a-cut.example', more: 'branch NS ns.branch\nns.branch A 192.0.2.54\nhidden.branch A 192.0.2.55' },
  early: { name: 'too-early.example' },
  byHand: { name: 'typed-by-hand.example', fresh: 'nsd' },
  acts: { name: 'sixty-acts.example' },
  tooLarge: { name: 'too-large.example', old: 'knot', fresh: 'bind' },
  wildcard: { name: 'wildcard.example', more: '* A 192.0.2.80\nblog A 192.0.2.90' },
} satisfies Record<string, RealDomain>;

/** What moves meet, with Debian's servers: the right refusal, the right time, the way on. */
(isRoot ? describe : describe.skip)('situations that a move meets (port 53 on loopback, so as root)', () => {
  const real = new RealMoves(Object.values(DOMAINS));
  const at = (domain: RealDomain): Promise<Driver> => real.lowered(domain);

  beforeAll(async () => void (await real.open()));
  afterAll(() => real.close());
  const beside = new SideBySide(MOST);

  beside.it('what somebody adds at the live new host stands when TTLs are raised, and is reported', async () => {
    const domain = DOMAINS.added;
    const driver = await at(domain);
    await real.switched(domain, driver);
    await real.edit(
      real.newAddress(domain),
      domain,
      `add ${domain.name}. 60 TXT "added=by somebody"`,
      `add ${domain.name}. 60 CAA 0 issue "certs.example"`,
      `add extra.${domain.name}. 60 A 192.0.2.7`,
    );
    await driver.until(
      'it is reported',
      asked(async () => (await driver.ledger()).served!.servers.some((server) => server.extras.length === 2)),
    );
    // A text joined a set that the plan has: that row is otherwise than planned, and is taken as it stands.
    await said(driver, /does not serve added-later\.example TXT as planned/i);
    await driver.way('served', 'adopt');
    await driver.done('settle');
    await driver.done('raise');
    const after = await transferredLines(real.newAddress(domain), domain.name);
    expect(after).toEqual(expect.arrayContaining([`${domain.name}. 60 IN CAA 0 issue "certs.example"`, `extra.${domain.name}. 60 IN A 192.0.2.7`]));
    expect(
      after
        .filter((line) => line.includes(' TXT '))
        .map((line) => line.replace(/ \d+ IN/, ''))
        .sort(),
    ).toEqual([`${domain.name}. TXT "added=by somebody"`, `${domain.name}. TXT "v=spf1 mx -all"`]);
    expect(after).toContain(`www.${domain.name}. 6 IN A 203.0.113.80`);
  });

  beside.it('a push names what stands there and is not ours, and takes it only with assent', async () => {
    const domain = DOMAINS.foreign;
    const driver = await real.chosen(domain);
    await driver.act('/push');
    await said(driver, /stands what is not of this plan.*k1\._domainkey\.foreign-key\.example TXT/);
    expect(await transferredLines(real.newAddress(domain), domain.name)).toContain(`k1._domainkey.${domain.name}. 60 IN TXT "v=DKIM1; p=somebody"`);
    await driver.way('push', 'keep');
    await driver.done('served');
    const after = await transferredLines(real.newAddress(domain), domain.name);
    expect(after).toContain(`k1._domainkey.${domain.name}. 60 IN TXT "v=DKIM1; p=somebody"`);
    expect(after.filter((line) => line.startsWith(`mail.${domain.name}.`))).toEqual([`mail.${domain.name}. 6 IN A 192.0.2.25`]);
  });

  beside.it('the gate names what changed in the old zone, and takes it into the plan', async () => {
    const domain = DOMAINS.drift;
    const driver = await at(domain);
    await real.open_(driver);
    await real.edit(
      real.oldAddress(domain),
      domain,
      `delete ${domain.name}. MX`,
      `add ${domain.name}. 6 MX 5 other.example.`,
      `add new.${domain.name}. 6 TXT "appeared"`,
    );
    await refused(driver, '/submitted', /something has to be done first.*old-edited\.example MX changed/);
    const shut = await said(driver, /new\.old-edited\.example TXT was added/);
    expect(shut.legs[0]!.gate.open).toBe(false);
    await driver.way('drift', 'adopt');
    await real.open_(driver);
    const after = await transferredLines(real.newAddress(domain), domain.name);
    expect(after).toEqual(expect.arrayContaining([`${domain.name}. 6 IN MX 5 other.example.`, `new.${domain.name}. 6 IN TXT "appeared"`]));
    const events = await real.events(driver);
    expect(events.filter((event) => event.kind === 'push' && event.text.startsWith('Sending'))).toHaveLength(2);
    expect(events.filter((event) => event.kind === 'lower' && event.text.startsWith('Sending'))).toHaveLength(1);
  });

  beside.it('the gate shuts where rows vanish at the new host, and "submitted" is refused with both', async () => {
    const domain = DOMAINS.vanish;
    const driver = await at(domain);
    await real.open_(driver);
    await real.edit(real.newAddress(domain), domain, `delete ${domain.name}. MX`, `delete mail.${domain.name}. A`);
    await refused(driver, '/submitted', /does not serve (?=.*new-loses\.example MX)(?=.*mail\.new-loses\.example A)/);
    await driver.way('served', 'take');
    await real.open_(driver);
  });

  beside.it('a TTL that is set back makes the lowering count anew', async () => {
    const domain = DOMAINS.reset;
    const driver = await at(domain);
    const before = (await real.open_(driver)).legs[0]!.seen.tl!;
    await real.edit(real.oldAddress(domain), domain, `delete www.${domain.name}. A`, `add www.${domain.name}. 6 A 192.0.2.80`);
    await refused(driver, '/submitted', /TTLs are not seen lowered/);
    await said(driver, /still serves the old TTL of www\.ttl-reset\.example A/);
    await real.edit(real.oldAddress(domain), domain, `delete www.${domain.name}. A`, `add www.${domain.name}. 2 A 192.0.2.80`);
    await driver.done('lowered');
    const again = await driver.move();
    expect(again.legs[0]!.seen.tl!.firstNew).toBeGreaterThan(before.firstNew);
    expect(again.legs[0]!.times!.earliestSwitch.at!).toBeGreaterThanOrEqual(again.legs[0]!.seen.tl!.firstNew + 3.9);
    await real.open_(driver);
  });

  beside.it('a planned set that is edited at the new host during the watch is said, and is set right by choice', async () => {
    const domain = DOMAINS.watch;
    const driver = await at(domain);
    await real.switched(domain, driver);
    await real.edit(real.newAddress(domain), domain, `delete www.${domain.name}. A`, `add www.${domain.name}. 2 A 203.0.113.81`);
    await said(driver, /does not serve www\.edited-in-watch\.example A as planned/);
    await driver.way('served', 'take');
    await driver.done('settle');
    expect((await dig(real.newAddress(domain), [`www.${domain.name}`, 'A', '+short'])).stdout.trim()).toBe('203.0.113.80');
  });

  beside.it('a parent that falls back is an alarm, and times count from the second switch', async () => {
    const domain = DOMAINS.relapse;
    const driver = await at(domain);
    await real.switched(domain, driver);
    const first = (await driver.move()).legs[0]!.seen.t0!.firstNew;
    await real.delegate(domain, [real.oldName(domain)]);
    await said(driver, /published the new set and has gone back to ns1\.oldbind\.example\./);
    await real.delegate(domain, [real.newName(domain)]);
    await driver.done('switch');
    expect((await driver.move()).legs[0]!.seen.t0!.firstNew).toBeGreaterThan(first);
    await driver.done('settle');
  });

  beside.it('a text of 40 KB is kept whole', async () => {
    const domain = DOMAINS.large;
    const driver = await at(domain);
    expect((await driver.move()).legs[0]!.steps.find((step) => step.id === 'served')!.state).toBe('done');
    const text = async (address: string): Promise<string> => (await dig(address, ['+tcp', `long.${domain.name}`, 'TXT', '+short'])).stdout;
    const [before, after] = [await text(real.oldAddress(domain)), await text(real.newAddress(domain))];
    expect(before.length).toBeGreaterThan(38_000);
    expect(after).toBe(before);
  });

  beside.it('data below a cut is not waited for at the new host, and its delegation is', async () => {
    const domain = DOMAINS.cut;
    const driver = await at(domain);
    expect((await driver.move()).legs[0]!.steps.find((step) => step.id === 'served')!.state).toBe('done');
    expect((await dig(real.newAddress(domain), [`x.branch.${domain.name}`, 'A'])).stdout).toMatch(/AUTHORITY: 1/);
    await real.edit(real.newAddress(domain), domain, `delete branch.${domain.name}. NS`);
    await said(driver, /does not serve branch\.below-a-cut\.example NS as planned/);
  });

  beside.it('a new host that takes no updates says so; the zone is written by hand, read back, and the move goes on', async () => {
    const domain = DOMAINS.byHand;
    const driver = await real.chosen(domain);
    await driver.act('/approve', { lowerAt: null, plannedSwitch: null, lowerTo: 2 });
    await driver.act('/push');
    await driver.until('the push stopped', (move) => move.legs[0]!.steps.find((step) => step.id === 'push')!.state === 'stopped');
    expect((await driver.move()).legs[0]!.steps.find((step) => step.id === 'push')!.text).toMatch(/NOTIMP|no updates|does not take/i);
    await driver.way('push', 'leave');
    await said(driver, /does not serve /);
    // What the server makes of a slip is what the server makes of it: each is read back and named.
    const slips: [RegExp, (line: string) => string][] = [
      [/www\.typed-by-hand\.example A: It stands at www\.typed-by-hand\.example\.typed-by-hand\.example/, (line) => line.replace(/^(www\.\S+)\. /, '$1 ')],
      [/typed-by-hand\.example MX: The domain was appended to the target/, (line) => line.replace(/( MX 10 \S+)\.$/, '$1')],
      [/typed-by-hand\.example TXT: The quotes are stored/, (line) => line.replace(/"(v=spf1.*)"/, '"\\"$1\\""')],
      [/mail\.typed-by-hand\.example A: 192\.0\.2\.52 has two digits exchanged: it is 192\.0\.2\.25/, (line) => line.replace('192.0.2.25', '192.0.2.52')],
    ];
    for (const [words, slip] of slips) {
      await real.typeIn(domain, driver, slip);
      await said(driver, words);
    }
    await real.typeIn(domain, driver);
    await driver.done('served');
    await driver.done('lowered');
    await real.switched(domain, driver);
    await driver.done('settle');
  });

  beside.it('a set that no message can hold is said at the plan, and is not sent', async () => {
    const domain = DOMAINS.tooLarge;
    const driver = await real.chosen(domain);
    const data = Array.from({ length: 330 }, (_, i) => `"${`${i} `.padEnd(200, 'x')}"`).join('\n');
    await driver.call('POST', `${await driver.leg()}/rulings`, { owner: `long.${domain.name}.`, type: 'TXT', ttl: '60', data });
    expect(
      (await driver.ledger()).remarks
        .filter((remark) => remark.weight === 'stop')
        .map((remark) => remark.text)
        .join(),
    ).toMatch(/message/);
    await expect(driver.act('/push')).rejects.toThrow(/message/);
  });

  beside.it('a switch that came before anybody was ready is noted with what was not true yet, and the move goes on', async () => {
    const domain = DOMAINS.early;
    const driver = await real.chosen(domain);
    await driver.act('/push');
    await driver.done('served');
    await real.delegate(domain, [real.newName(domain)]);
    await driver.done('switch');
    expect((await real.events(driver)).find((event) => /before everything was ready/.test(event.text))?.text).toMatch(
      /old zone is compared with the survey once/,
    );
    await driver.act('/approve', { lowerAt: null, plannedSwitch: null, lowerTo: 2 }).catch(() => undefined);
    expect((await driver.move()).legs[0]!.times!.last.at).not.toBeNull();
  });

  beside.it('a dropped name that a wildcard answers is judged by what is answered', async () => {
    const domain = DOMAINS.wildcard;
    const driver = await at(domain);
    const { rulings } = await driver.ledger();
    const row = rulings.find((one) => one.owner === `blog.${domain.name}.`)!;
    await driver.call('PUT', `${await driver.leg()}/rulings/${row.id}`, { ruling: 'drop' });
    await driver.done('served');
    expect((await dig(real.newAddress(domain), [`blog.${domain.name}`, 'A', '+short'])).stdout.trim()).toBe('203.0.113.80');
  });

  beside.it('sixty acts at once are all answered, in order, while others read', async () => {
    const driver = await at(DOMAINS.acts);
    const leg = await driver.leg();
    const { rulings } = await driver.ledger();
    const row = rulings.find((one) => one.type === 'TXT')!;
    const acts = Array.from({ length: 30 }, (_, i) => ['PUT', `${leg}/rulings/${row.id}`, { ruling: i % 2 === 0 ? 'drop' : 'carry' }] as const);
    const undos = Array.from({ length: 30 }, () => ['POST', `${leg}/undo`, {}] as const);
    const slow: number[] = [];
    const reader = (async () => {
      for (let i = 0; i < 20; i++) {
        const begun = performance.now();
        await real.api.call('GET', '/api/moves?state=open');
        slow.push(performance.now() - begun);
      }
    })();
    const all = await Promise.allSettled([...acts, ...undos].map(([method, path, body]) => real.api.call(method, path, body)));
    await reader;
    expect(all.filter((one) => one.status === 'rejected')).toEqual([]);
    // Every ruling was taken back by an undo: the row is as it was.
    expect((await driver.ledger()).rulings.find((one) => one.id === row.id)!.ruling).toBe(row.ruling);
    const versions = (await real.events(driver)).filter((event) => event.kind === 'ruling').length;
    expect(versions).toBe(60);
    expect(slow.length).toBe(20);
  });

  beside.it('a parent server answers what it was asked', async () => {
    expect((await dig(PARENT, ['example', 'SOA', '+short'])).stdout).toMatch(/ns1\.nic\.example/);
  });
});
