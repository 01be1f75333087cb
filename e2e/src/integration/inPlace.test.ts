import { until } from '../../../command/src/api';
import { Driver, stepOf } from '../support/drive';
import { NEW_NSD, RealDomain, RealMoves, refused, said } from '../support/realMoves';
import { SideBySide } from '../support/sideBySide';
import { dig } from '../support/realServers';

/** Moves under way at once. */
const MOST = 5;
const isRoot = process.getuid?.() === 0;

const DOMAINS = {
  website: { name: 'in-place.example', more: 'blog A 192.0.2.90\nftp CNAME www' },
  names: { name: 'two-names.example', old: 'knot', more: 'shop A 192.0.2.80\nshop AAAA 2001:db8::80\nwww.shop CNAME shop\nclub CNAME sites.oldweb.example.' },
  edited: { name: 'edited-there.example' },
  back: { name: 'and-back.example', fresh: 'bind' },
  inTurn: { name: 'in-turn.example' },
  otherWay: { name: 'other-way.example' },
  early: { name: 'looked-for.example' },
  earlyAway: { name: 'looked-for-away.example' },
  byHand: {
    name: 'by-hand.example',
    fresh: 'nsd',
    delegation: 'by-hand.example. 3 NS ns1.newnsd.example.',
    there: 'www 6 A 192.0.2.80\n@ 6 A 192.0.2.80\nmail 6 A 192.0.2.25',
  },
  account: {
    name: 'other-account.example',
    fresh: 'nsd',
    delegation: 'other-account.example. 3 NS ns1.newnsd.example.',
    there: 'www 2 A 192.0.2.80\n@ 2 A 192.0.2.80\nmail 6 A 192.0.2.25\n@ 6 MX 10 mail\n@ 6 TXT "v=spf1 mx -all"',
  },
} satisfies Record<string, RealDomain>;

/** Records that change where they are, at Debian's servers, while others work in the same zones. */
(isRoot ? describe : describe.skip)('records that change in place (port 53 on loopback, so as root)', () => {
  const real = new RealMoves(Object.values(DOMAINS));
  beforeAll(async () => {
    await real.open();
    await real.addHost('asking web', {
      role: 'web',
      addresses: ['203.0.113.80'],
      requires: [{ owner: '@', type: 'TXT', data: '', early: true, ends: 'verified' }],
      tasks: [{ title: 'Prove it', by: 'us', when: 'before', waits: true }],
    });
  });
  afterAll(() => real.close());
  const beside = new SideBySide(MOST);

  const lines: RealMoves['lines'] = (address, domain) => real.lines(address, domain);
  const answer: RealMoves['answer'] = (name, type) => real.answer(name, type);

  beside.it('the website leads elsewhere, everything else stays, and a resolver is never without an answer', async () => {
    const domain = DOMAINS.website;
    const before = await lines(real.oldAddress(domain), domain);
    const driver = await real.inPlace(domain);
    await driver.done('lowered');
    const move = await driver.move();
    expect(move.legs[0]).toMatchObject({ kind: 'repoint', chosen: true, counts: { repoint: 2 } });
    expect(move.legs[0]!.steps.map((step) => step.id)).toEqual(['survey', 'choose', 'lower', 'lowered', 'change', 'changed', 'settle', 'raise', 'close']);
    expect(await answer(`www.${domain.name}`)).toBe('192.0.2.80');
    await real.changed(driver);
    const settled = await driver.done('settle');
    expect(await answer(`www.${domain.name}`)).toBe('203.0.113.80');
    // Not before what was remembered of the old values has run out: a TTL of 2 s, from the last moment at which one was served.
    const { t0 } = settled.legs[0]!.seen;
    expect(settled.legs[0]!.times!.last.at!).toBeGreaterThanOrEqual(t0!.lastOld + 2);
    await driver.done('raise');
    const after = await lines(real.oldAddress(domain), domain);
    const moved = (all: string[]): string[] => all.map((line) => line.replace('192.0.2.80', '203.0.113.80')).sort();
    expect(after).toEqual(moved(before));
    await driver.act('/close');
  });

  beside.it('another way is chosen after the push and the lowering: what was done stays or is set back, as steps', async () => {
    const domain = DOMAINS.otherWay;
    const before = await lines(real.oldAddress(domain), domain);
    const driver = await real.lowered(domain);
    expect((await lines(real.oldAddress(domain), domain)).filter((line) => line.includes(' 2 '))).toHaveLength(3);
    await driver.act('/hosts', { way: 'repoint', newDnsHost: null, newWebHost: real.host('new web') });
    const leg = (await driver.move()).legs[0]!;
    expect(leg).toMatchObject({ kind: 'repoint', approved: false, pushed: false });
    const unused = `unused:${real.host('new knot')}`;
    expect(leg.steps.map((step) => step.id)).toContain(unused);
    await driver.act('/approve', { lowerAt: null, plannedSwitch: null, lowerTo: 2 });
    await driver.done('lowered');
    await real.changed(driver);
    await driver.done('settle');
    await driver.done('raise');
    // Everything has its TTL of before, the NS set included, which this way would not have lowered.
    expect(await lines(real.oldAddress(domain), domain)).toEqual(before.map((line) => line.replace('192.0.2.80', '203.0.113.80')).sort());
    await driver.way(unused, 'done');
    await expect(driver.act('/hosts', { way: 'repoint', newDnsHost: null, newWebHost: real.host('new web') })).rejects.toThrow(/under way/);
    await driver.act('/close');
  });

  beside.it('two names of one domain are moved at once by two moves; neither touches the other, nor what somebody else edits beside them', async () => {
    const domain = DOMAINS.names;
    const shop = await real.inPlace(domain, `shop.${domain.name}`);
    const club = await real.inPlace(domain, `club.${domain.name}`);
    await expect(Driver.begin(real.api, domain.name)).rejects.toThrow(/being moved already/);
    await expect(Driver.begin(real.api, `shop.${domain.name}`, undefined, 'name')).rejects.toThrow(/being moved already/);
    await Promise.all([shop.done('lowered'), club.done('lowered')]);
    const { rulings } = await shop.ledger();
    const ruled = rulings.filter((row) => row.ruling !== 'carry' && !row.reason.startsWith('the DNS host'));
    // The one alias at the name itself needs no change: it leads to the name that moves.
    expect(ruled.map((row) => `${row.owner} ${row.type} ${row.ruling}`).sort()).toEqual([
      `shop.${domain.name}. A repoint`,
      `shop.${domain.name}. AAAA drop`,
      `www.shop.${domain.name}. A new`,
      `www.shop.${domain.name}. CNAME drop`,
    ]);
    const apexA = rulings.find((row) => row.owner === `${domain.name}.` && row.type === 'A')!;
    await expect(shop.call('PUT', `${await shop.leg()}/rulings/${apexA.id}`, { ruling: 'drop' })).rejects.toThrow(/not in this move/);
    // Somebody else works in the zone all the while.
    await real.edit(real.oldAddress(domain), domain, `add added.${domain.name}. 60 TXT "by somebody else"`, `delete ${domain.name}. MX`);
    await Promise.all([real.changed(shop), real.changed(club)]);
    await real.edit(real.oldAddress(domain), domain, `delete ${domain.name}. TXT`);
    await Promise.all([shop.done('settle'), club.done('settle')]);
    await Promise.all([shop.done('raise'), club.done('raise')]);
    expect(await lines(real.oldAddress(domain), domain)).toEqual(
      [
        `${domain.name}. 5 IN NS ns1.oldknot.example.`,
        `${domain.name}. 6 IN A 192.0.2.80`,
        `added.${domain.name}. 60 IN TXT "by somebody else"`,
        `club.${domain.name}. 6 IN A 203.0.113.80`,
        `mail.${domain.name}. 6 IN A 192.0.2.25`,
        `shop.${domain.name}. 6 IN A 203.0.113.80`,
        `www.${domain.name}. 6 IN A 192.0.2.80`,
        `www.shop.${domain.name}. 6 IN A 203.0.113.80`,
      ].sort(),
    );
    expect([await answer(`shop.${domain.name}`, 'AAAA'), await answer(`club.${domain.name}`)]).toEqual(['', '203.0.113.80']);
  });

  beside.it('what somebody sets otherwise before and after is said, and is taken or set right by choice', async () => {
    const domain = DOMAINS.edited;
    const driver = await real.inPlace(domain);
    await real.open_(driver);
    const at = real.oldAddress(domain);
    await real.edit(at, domain, `delete www.${domain.name}. A`, `add www.${domain.name}. 2 A 192.0.2.99`);
    await refused(driver, '/submitted', /www\.edited-there\.example A changed/);
    await driver.way('drift', 'adopt');
    await real.changed(driver);
    await real.edit(at, domain, `delete www.${domain.name}. A`, `add www.${domain.name}. 2 A 192.0.2.80`);
    await said(driver, /does not serve www\.edited-there\.example A as planned/);
    expect(stepOf(await driver.move(), 'changed').state).toBe('doing');
    await driver.way('changed', 'take');
    await driver.done('settle');
    await driver.done('raise');
    expect(await lines(at, domain)).toContain(`www.${domain.name}. 6 IN A 203.0.113.80`);
    const events = await real.events(driver);
    expect(events.filter((event) => event.kind === 'change' && event.text.startsWith('Sending'))).toHaveLength(2);
  });

  beside.it('what was changed is set back, and is not over before the new values have run out too', async () => {
    const domain = DOMAINS.back;
    const before = await lines(real.oldAddress(domain), domain);
    const driver = await real.inPlace(domain);
    await real.changed(driver);
    await until('the new value is remembered', async () => (await answer(`www.${domain.name}`)) === '203.0.113.80');
    await driver.act('/back', { how: 'records' });
    const back = await driver.done('changed');
    expect(back.legs.map((leg) => [leg.kind, leg.followed, leg.isBack])).toEqual([
      ['repoint', true, false],
      ['repoint', false, true],
    ]);
    // What is over takes no acts any more.
    await expect(driver.call('POST', `/api/legs/${back.legs[0]!.id}/back`, { how: 'records' })).rejects.toThrow(/stage is over/);
    const settled = await driver.done('settle');
    const { t0 } = settled.legs[1]!.seen;
    expect(settled.legs[1]!.times!.last.at!).toBeGreaterThanOrEqual(t0!.lastOld + 2);
    expect(await answer(`www.${domain.name}`)).toBe('192.0.2.80');
    await driver.done('raise');
    expect(await lines(real.oldAddress(domain), domain)).toEqual(before);
    await driver.act('/close');
  });

  describe('a web host that looks for a token before the cutover', () => {
    const token = '"token=k2f9"';
    /** Chosen, its token given, sent to the live zone beside what is there, and seen; the task that waited for it is done. */
    async function proved(domain: RealDomain, choice: object): Promise<Driver> {
      const driver = await Driver.begin(real.api, domain.name);
      await driver.done('survey');
      await driver.act('/hosts', { ...choice, newWebHost: real.host('asking web') });
      const need = (await driver.move()).legs[0]!.asked!.needs[0]!;
      expect(need).toMatchObject({ state: 'open', data: null, given: true });
      await expect(driver.act('/given', { requirement: need.id, data: ' ' })).rejects.toThrow(/empty/);
      await driver.act('/given', { requirement: need.id, data: 'token=k2f9' });
      expect((await driver.move()).legs[0]!.asked!.needs[0]).toMatchObject({ state: 'planned', data: token });
      const prove = (await driver.move()).legs[0]!.steps.find((step) => step.title === 'Prove it')!;
      expect(prove.state).toBe('waiting');
      await driver.way('early', 'send early');
      await driver.done('early-seen');
      await driver.way(prove.id, 'done');
      return driver;
    }

    beside.it('has it beside the texts that are there, which is no drift and no beginning of the change', async () => {
      const domain = DOMAINS.early;
      const before = await lines(real.oldAddress(domain), domain);
      const driver = await proved(domain, { way: 'repoint', newDnsHost: null });
      expect(await lines(real.oldAddress(domain), domain)).toEqual(
        [...before, `${domain.name}. 6 IN TXT ${token}`]
          .sort()
          .map((line) => line.replace(/ \d+ IN TXT/, ' 6 IN TXT'))
          .sort(),
      );
      await driver.act('/approve', { lowerAt: null, plannedSwitch: null, lowerTo: 2 });
      await real.open_(driver);
      const { gate, seen } = (await driver.move()).legs[0]!;
      expect(seen.ts).toBeNull();
      expect(gate.lines.find((line) => line.key === 'drift')).toMatchObject({ holds: true });
      await real.changed(driver);
      await driver.done('settle');
      await driver.done('raise');
      const after = await lines(real.oldAddress(domain), domain);
      expect(after).toContain(`${domain.name}. 6 IN TXT ${token}`);
      expect(
        after
          .map((line) => line.replace('203.0.113.80', '192.0.2.80'))
          .filter((line) => !line.includes(token))
          .sort(),
      ).toEqual(before);
    });

    beside.it('is found by the host in the old zone, and is in the new one after the switch', async () => {
      const domain = DOMAINS.earlyAway;
      const driver = await proved(domain, { newDnsHost: real.host('new knot') });
      await driver.act('/push');
      await driver.act('/approve', { lowerAt: null, plannedSwitch: null, lowerTo: 2 });
      await real.open_(driver);
      const { gate } = (await driver.move()).legs[0]!;
      expect(gate.lines.map((line) => [line.key, line.passes])).toEqual(
        expect.arrayContaining([
          ['asked', true],
          ['drift', true],
        ]),
      );
      expect(await lines(real.newAddress(domain), domain)).toEqual(expect.arrayContaining([expect.stringContaining(`TXT ${token}`)]));
    });
  });

  beside.it('in two legs: the nameservers first, the website where it then is', async () => {
    const domain = DOMAINS.inTurn;
    const driver = await Driver.begin(real.api, domain.name);
    await driver.done('survey');
    await driver.act('/hosts', { way: 'nameservers first', newDnsHost: real.host('new knot'), newWebHost: real.host('new web') });
    expect((await driver.ledger()).rulings.filter((row) => row.ruling === 'repoint')).toEqual([]);
    await driver.act('/approve', { lowerAt: null, plannedSwitch: null, lowerTo: 2 });
    await driver.act('/push');
    await driver.done('lowered');
    await real.switched(domain, driver);
    await driver.done('settle');
    await driver.done('raise');
    await expect(driver.act('/close')).rejects.toThrow(/not finished everywhere/);
    await driver.call('POST', `${await driver.leg()}/next`);
    await driver.done('survey');
    const { legs } = await driver.move();
    expect([legs.length, legs[0]!.next?.newWebHost, legs[1]!.oldNameservers]).toEqual([2, real.host('new web'), ['ns1.newknot.example.']]);
    await driver.act('/hosts', { way: 'repoint', newDnsHost: null, newWebHost: real.host('new web') });
    await driver.act('/approve', { lowerAt: null, plannedSwitch: null, lowerTo: 2 });
    await real.changed(driver);
    await driver.done('settle');
    await driver.done('raise');
    await driver.act('/close');
    expect(await answer(`www.${domain.name}`)).toBe('203.0.113.80');
    expect(await lines(real.newAddress(domain), domain)).toEqual(
      [
        `${domain.name}. 60 IN NS ns1.newknot.example.`,
        `${domain.name}. 6 IN A 203.0.113.80`,
        `${domain.name}. 6 IN MX 10 mail.${domain.name}.`,
        `${domain.name}. 6 IN TXT "v=spf1 mx -all"`,
        `mail.${domain.name}. 6 IN A 192.0.2.25`,
        `www.${domain.name}. 6 IN A 203.0.113.80`,
      ].sort(),
    );
  });

  beside.it('where the host takes no updates, a person does it all by hand, and what is served counts', async () => {
    const domain = DOMAINS.byHand;
    const driver = await real.inPlace(domain);
    const typed = (ttl: number, address: string): void => real.writeZone(domain, `www ${ttl} A ${address}\n@ ${ttl} A ${address}\nmail 6 A 192.0.2.25`);
    await driver.until('the lowering stops', (move) => stepOf(move, 'lower').state === 'stopped');
    await driver.way('lower', 'leave');
    typed(2, '192.0.2.80');
    await driver.done('lowered');
    await real.open_(driver);
    await real.submitted(driver);
    await driver.until('the change stops', (move) => stepOf(move, 'change').state === 'stopped');
    await driver.way('change', 'leave');
    await said(driver, /does not serve .*by-hand\.example A/);
    typed(2, '203.0.113.80');
    await driver.done('changed');
    await driver.done('settle');
    expect(await answer(`www.${domain.name}`)).toBe('203.0.113.80');
  });

  beside.it('the zone goes into another account behind the same servers: what was not typed there is named, and all of it is served in the end', async () => {
    const domain = DOMAINS.account;
    const driver = await Driver.begin(real.api, domain.name);
    await driver.done('survey');
    const choice = { way: 'another account', newWebHost: real.host('new web') };
    await expect(driver.act('/hosts', { ...choice, newDnsHost: real.host('new bind') })).rejects.toThrow(/other nameservers than the domain is delegated to/);
    await driver.act('/hosts', { ...choice, newDnsHost: real.host('new nsd') });
    await driver.act('/approve', { lowerAt: null, plannedSwitch: null, lowerTo: 2 });
    const { steps, account, kind } = (await driver.move()).legs[0]!;
    expect([kind, account, steps.map((step) => step.id)]).toEqual([
      ...['repoint', true, ['survey', 'choose', 'push', 'lower', 'lowered', 'change', 'changed', 'settle', 'raise', 'close']],
    ]);
    // Whether there is a gap is not known of this host: nobody goes on before somebody has let that pass.
    await driver.way('push', 'leave');
    await driver.until('the lowering stops', (move) => stepOf(move, 'lower').state === 'stopped' || stepOf(move, 'lower').state === 'done');
    if (stepOf(await driver.move(), 'lower').state === 'stopped') await driver.way('lower', 'leave');
    await driver.done('lowered');
    await refused(driver, '/submitted', /not known/);
    await driver.until(
      'the gate is open',
      (move) => move.legs[0]!.gate.open,
      () => driver.letPass(['website', 'gap']),
    );
    await until('the gate lets it through', async () => {
      await driver.letPass(['website', 'gap']);
      return driver.tried('/submitted');
    });
    // The new account begins with nothing: everything is missing, mail too, though it was to stay as it was.
    real.writeZone(domain, '');
    await said(driver, /does not serve .*MX/);
    expect(await answer(`nothing.${domain.name}`)).toBe('');
    // Typed, but for the address of the mail host.
    const { rulings } = await driver.ledger();
    await real.typeIn(domain, driver, (line) => (line.startsWith('mail.') ? '' : line));
    await said(driver, /does not serve mail\.other-account\.example A as planned/);
    expect(stepOf(await driver.move(), 'changed').state).toBe('doing');
    await real.typeIn(domain, driver);
    await driver.done('changed');
    await driver.done('settle');
    expect(await Promise.all([answer(`www.${domain.name}`), answer(domain.name, 'MX'), answer(`mail.${domain.name}`)])).toEqual([
      ...['203.0.113.80', `10 mail.${domain.name}.`, '192.0.2.25'],
    ]);
    const served = await Promise.all(rulings.map(({ planned }) => planned && dig(NEW_NSD, [planned.owner, planned.type, '+short'])));
    for (const [index, { planned }] of rulings.entries())
      if (planned) expect(served[index]!.stdout.trim().split('\n').sort()).toEqual([...planned.data].sort());
  });
});
