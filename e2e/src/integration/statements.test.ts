import { until } from '../../../command/src/api';
import { Driver, stepOf } from '../support/drive';
import { RealDomain, RealMoves, said } from '../support/realMoves';
import { SideBySide } from '../support/sideBySide';
import { OLD, loopback, transferredLines } from '../support/realServers';

const isRoot = process.getuid?.() === 0;

const DOMAINS = {
  raised: { name: 'raised-before.example' },
  raisedInPlace: { name: 'raised-in-place.example', old: 'knot' },
  wildcard: { name: 'kept-wildcard.example', more: '* 90 A 192.0.2.90' },
  endless: { name: 'endless-ttl.example', more: 'shop 2147483647 A 192.0.2.80' },
  left: { name: 'edited-when-left.example' },
  uses: {
    name: 'several-uses.example',
    more: 'imap A 192.0.2.80\nsmtp A 192.0.2.80\n_imaps._tcp SRV 0 0 993 imap\n_submissions._tcp SRV 0 0 465 smtp\nbranch NS ns.branch\nns.branch A 192.0.2.80',
  },
  // Delegated to an address where nobody is any more.
  gone: {
    name: 'gone-server.example',
    delegation: `gone-server.example. 3 NS ns1.gone-server.example.\nns1.gone-server.example. A ${loopback(99)}`,
    more: 'rarely-guessed TXT "kept"',
  },
  oddRow: { name: 'odd-row.example', old: 'knot', fresh: 'bind', more: 'cam_1 A 192.0.2.81', settings: 'check-names fail;' },
} satisfies Record<string, RealDomain>;

/** Statements that were false once, and states that had no way on, with Debian's servers. */
(isRoot ? describe : describe.skip)('what is said of a move is so, and each wait has a way on (port 53 on loopback, so as root)', () => {
  const real = new RealMoves(Object.values(DOMAINS));

  beforeAll(() => real.open());
  afterAll(() => real.close());
  const beside = new SideBySide(4);

  /** Somebody saves `www` with a larger TTL, and it is lowered before anybody has looked again. */
  const raise = (domain: RealDomain): Promise<void> =>
    real.edit(real.oldAddress(domain), domain, `delete www.${domain.name}. A`, `add www.${domain.name}. 40 A 192.0.2.80`);

  /** The gate counts the raised TTL from the moment at which it was gone, as the world has it and not as it was planned. */
  const countsRaised = async (driver: Driver): Promise<void> => {
    await driver.done('lowered');
    const leg = (await driver.move()).legs[0]!;
    const { earliestSwitch } = leg.times!;
    expect(earliestSwitch.terms.find((term) => term.symbol === 'T')?.value).toBe(40);
    // Not before what a resolver took right before the lowering has run out.
    expect(earliestSwitch.at! - leg.seen.tl!.firstNew).toBeGreaterThan(40 - 2 - 1);
    expect(leg.gate.open).toBe(false);
  };

  beside.it('a TTL that was raised between the last look and the lowering is waited for', async () => {
    const domain = DOMAINS.raised;
    const driver = await real.chosen(domain);
    await raise(domain);
    await driver.act('/approve', { lowerAt: null, plannedSwitch: null, lowerTo: 2 });
    await countsRaised(driver);
  });

  beside.it('the same where records change in place', async () => {
    const domain = DOMAINS.raisedInPlace;
    const driver = await Driver.begin(real.api, domain.name);
    await driver.done('survey');
    await driver.act('/hosts', { way: 'repoint', newDnsHost: null, newWebHost: real.host('new web') });
    await raise(domain);
    await driver.act('/approve', { lowerAt: null, plannedSwitch: null, lowerTo: 2 });
    await countsRaised(driver);
  });

  beside.it('a carried wildcard beside a new name does not keep the gate shut: it counts with its TTL as found', async () => {
    const domain = DOMAINS.wildcard;
    const driver = await real.chosen(domain);
    await driver.act('/rulings', { owner: `shop.${domain.name}.`, type: 'A', ttl: '60', data: '203.0.113.80' });
    await driver.act('/approve', { lowerAt: null, plannedSwitch: null, lowerTo: 2 });
    await driver.act('/push');
    await real.open_(driver);
  });

  beside.it('an answer that may be remembered for sixty years is taken as it is by a person, and the consequence is said', async () => {
    const domain = DOMAINS.endless;
    const driver = await real.chosen(domain);
    await driver.act('/approve', { lowerAt: null, plannedSwitch: null, lowerTo: 2 });
    await driver.act('/push');
    await driver.done('lowered');
    await driver.done('served');
    await driver.letPass(['website']);
    const line = (await driver.move()).legs[0]!.gate.lines.find((one) => one.key === 'run out')!;
    expect(line.ways.map((way) => way.means).join()).toMatch(/led to the old place for up to 24855 d .*Most resolvers keep nothing for longer than 7 d/);
    await driver.way('run out', 'accept TTLs');
    await real.open_(driver);
    await real.switched(domain, driver);
    await driver.until('it is said how to end it', (move) =>
      move.legs[0]!.steps.find((step) => step.id === 'settle')!.ways.some((way) => way.subject === 'settle'),
    );
    // On a machine that is too busy to look in time the way can be gone for a moment: it is taken once it is there.
    await driver.until(
      'it is ended by word',
      (move) => stepOf(move, 'settle').state === 'left',
      async () => void (await driver.tried('/ways', { step: 'settle', act: 'leave', subject: 'settle' })),
    );
    await driver.done('raise');
    await driver.act('/close');
  });

  beside.it('what somebody edits in the zone that is left, of a set that is kept, is waited for as long as resolvers are led there', async () => {
    const domain = DOMAINS.left;
    const driver = await real.lowered(domain);
    await real.submitted(driver);
    await real.delegate(domain, [real.newName(domain)]);
    // Resolvers may have the old delegation for three seconds yet.
    await real.edit(real.oldAddress(domain), domain, `delete ${domain.name}. MX`, `add ${domain.name}. 25 MX 14 mail.${domain.name}.`);
    const edited = Date.now() / 1000;
    await driver.done('switch');
    await driver.done('settle');
    expect(Date.now() / 1000).toBeGreaterThanOrEqual(edited + 25);
    expect(await real.answer(domain.name, 'MX')).toBe(`10 mail.${domain.name}.`);
  });

  beside.it('what is at the address of the website and is not the website stays there, each use named, and is there at the end', async () => {
    const domain = DOMAINS.uses;
    const driver = await real.chosen(domain);
    const { rulings, remarks } = await driver.ledger();
    const ruled = (label: string): string | undefined => rulings.find((row) => row.owner === `${label}.${domain.name}.` && row.type === 'A')?.ruling;
    expect(['www', 'imap', 'smtp', 'ns.branch'].map(ruled)).toEqual(['repoint', 'carry', 'carry', 'carry']);
    const said = (label: string): string => remarks.flatMap((one) => (one.owner === `${label}.${domain.name}.` ? [one.text] : [])).join(' ');
    expect([said('imap'), said('smtp')]).toEqual([
      expect.stringMatching(/another use: .*_imaps\._tcp/),
      expect.stringMatching(/another use: .*_submissions\._tcp/),
    ]);
    await driver.act('/approve', { lowerAt: null, plannedSwitch: null, lowerTo: 2 });
    await driver.act('/push');
    await real.switched(domain, driver);
    await driver.done('settle');
    expect(await Promise.all(['www', 'imap', 'smtp'].map((label) => real.answer(`${label}.${domain.name}`)))).toEqual([
      '203.0.113.80',
      '192.0.2.80',
      '192.0.2.80',
    ]);
    await driver.done('raise');
    expect((await driver.act('/close')).state).toBe('closed');
  });

  beside.it('a survey that no nameserver answers takes what somebody has instead, and another server that has the zone', async () => {
    const domain = DOMAINS.gone;
    const driver = real.takenUp(await Driver.begin(real.api, domain.name));
    await said(driver, /^No nameserver gave anything of the zone: .*or another server that has it\./);
    const [www, mx] = [
      { owner: `www.${domain.name}.`, type: 'A', ttl: 300, data: ['192.0.2.80'] },
      { owner: `${domain.name}.`, type: 'MX', ttl: 300, data: [`10 mail.${domain.name}.`] },
    ];
    await driver.act('/in-hand', { names: [], sets: [www, mx] });
    await driver.done('survey');
    const given = await driver.survey();
    expect(given.sets.map(({ owner, type, data }) => [owner, type, data])).toEqual(
      expect.arrayContaining([
        [www.owner, 'A', www.data],
        [mx.owner, 'MX', mx.data],
      ]),
    );
    expect([given.coverage.grade, given.coverage.reasons.join(' ')]).toEqual([
      'partial',
      expect.stringMatching(/answers: 2 record sets stand here as you gave them\./),
    ]);
    await driver.act('/in-hand', { names: [], sets: [], servers: [real.oldName(domain)] });
    const named = await until('it is taken with the server', async () => {
      const survey = await driver.survey();
      return survey.takenAt > given.takenAt && survey;
    });
    expect(named.sets.map((set) => set.owner)).toEqual(expect.arrayContaining([`rarely-guessed.${domain.name}.`, `mail.${domain.name}.`]));
    expect([named.coverage.grade, named.coverage.reasons.join(' ')]).toEqual([
      'partial',
      expect.stringContaining(`as ns1.oldbind.example (${OLD}), which you named, gives them`),
    ]);
    // Nobody is led to it: it is none of the servers that are watched.
    expect(named.authorities.map((one) => one.address)).toEqual([loopback(99)]);
    await driver.act('/hosts', { newDnsHost: real.host('new knot'), newWebHost: real.host('new web') });
    expect((await driver.ledger()).rulings.find((row) => row.owner === `www.${domain.name}.`)).toMatchObject({ ruling: 'repoint' });
  });

  beside.it('a push that is refused because of one row names it, and everything else takes effect', async () => {
    const domain = DOMAINS.oddRow;
    const driver = await real.chosen(domain);
    await driver.act('/push');
    await said(driver, /refuses cam_1\.odd-row\.example A \(REFUSED\)\. It takes addresses and mail only at names of letters, digits and hyphens/);
    const there = await transferredLines(real.newAddress(domain), domain.name);
    expect(there.filter((line) => / (A|MX) /.test(line)).map((line) => line.split(' ')[0])).toEqual(
      expect.arrayContaining([`${domain.name}.`, `www.${domain.name}.`, `mail.${domain.name}.`]),
    );
    expect(there.join()).not.toContain('cam_1');
  });
});
