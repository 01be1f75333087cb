import { until } from '../../../command/src/api';
import { Driver } from '../support/drive';
import { RealDomain, RealMoves, refused } from '../support/realMoves';
import { SideBySide } from '../support/sideBySide';

const isRoot = process.getuid?.() === 0;

const DOMAINS = {
  records: { name: 'back-by-records.example', more: 'panel A 192.0.2.80\ncalendar CNAME sites.oldweb.example.' },
  names: { name: 'back-by-names.example', old: 'knot', fresh: 'bind', newNs: '@ 4 NS ns1.newbind.example.', more: 'shop A 192.0.2.80' },
  early: { name: 'back-too-early.example' },
} satisfies Record<string, RealDomain>;

/** A switch that is taken back, at Debian's servers: by the records at the new host, and by the nameservers. */
(isRoot ? describe : describe.skip)('backing out of a switch (port 53 on loopback, so as root)', () => {
  const real = new RealMoves(Object.values(DOMAINS));
  beforeAll(() => real.open());
  afterAll(() => real.close());
  const beside = new SideBySide(4);

  const lines: RealMoves['lines'] = (address, domain) => real.lines(address, domain);
  const answer: RealMoves['answer'] = (name, type) => real.answer(name, type);

  beside.it('by the records: the old values at the new host, and not over before the new ones have run out', async () => {
    const domain = DOMAINS.records;
    const driver = await real.lowered(domain);
    expect((await driver.move()).legs[0]!.back).toEqual([]);
    await expect(driver.act('/back', { how: 'records' })).rejects.toThrow(/nothing was changed/);
    await real.switched(domain, driver);
    await driver.done('turn');
    await until('the new value is remembered', async () => (await answer(`www.${domain.name}`)) === '203.0.113.80');
    // The registry's servers are looked at by themselves, and may say so a moment later.
    const seen = await driver.until('the new nameservers are published everywhere', (move) => move.legs[0]!.seen.t0 !== null);
    expect(seen.legs[0]!.back.map(({ how, ruledOut }) => [how, ruledOut])).toEqual([
      ['records', null],
      ['nameservers', null],
    ]);
    await driver.act('/back', { how: 'records' });
    await driver.done('changed');
    const settled = (await driver.done('settle')).legs[1]!;
    expect([settled.kind, settled.isBack]).toEqual(['repoint', true]);
    expect(settled.times!.last.at!).toBeGreaterThanOrEqual(settled.seen.t0!.lastOld + 2);
    expect(await answer(`www.${domain.name}`)).toBe('192.0.2.80');
    await driver.done('raise');
    // The zone stays where it is: what led to the old web host does so again, with the TTL that it had.
    expect((await lines(real.newAddress(domain), domain)).filter((line) => line.includes('192.0.2.80'))).toEqual(
      [domain.name, `panel.${domain.name}`, `www.${domain.name}`].map((name) => `${name}. 6 IN A 192.0.2.80`),
    );
    expect(await answer(domain.name, 'NS')).toBe('ns1.newknot.example.');
    await driver.act('/close');
  });

  beside.it('by the nameservers: the old zone made ready, then the registrar, then the new zone turned', async () => {
    const domain = DOMAINS.names;
    const before = await lines(real.oldAddress(domain), domain);
    const driver = await real.lowered(domain);
    await real.switched(domain, driver);
    await driver.done('turn');
    // What was edited at the old host meanwhile is nobody's any more: it is set back to what was surveyed. What stands beside it stays.
    await real.edit(
      real.oldAddress(domain),
      domain,
      `delete shop.${domain.name}. A`,
      `add shop.${domain.name}. 6 A 192.0.2.99`,
      `add extra.${domain.name}. 6 A 192.0.2.98`,
    );
    await until('the new zone is known to a resolver', async () => (await answer(domain.name, 'NS')) === 'ns1.newbind.example.');
    await driver.act('/back', { how: 'nameservers' });
    const begun = (await driver.move()).legs[1]!;
    expect(begun.steps.map((step) => step.id)).toEqual(['survey', 'choose', 'push', 'served', 'switch', 'turn', 'turned', 'settle', 'raise', 'close']);
    expect([begun.seen.ts, begun.oldNameservers, begun.newNameservers]).toEqual([null, ['ns1.newbind.example.'], ['ns1.oldknot.example.']]);
    await stoppedAt(driver, /At old knot stands what is not of this plan.*shop\.back-by-names\.example A/);
    await driver.way('push', 'take');
    await driver.done('served');
    expect(await lines(real.oldAddress(domain), domain)).toEqual(expect.arrayContaining([expect.stringContaining('NS ns1.oldknot.example.')]));
    await real.submitted(driver);
    await real.delegate(domain, [real.oldName(domain)]);
    await driver.done('switch');
    await driver.done('turn');
    const settled = (await driver.done('settle')).legs[1]!;
    // Not before the referral to the new host, and what it gave, have run out.
    expect(settled.times!.last.at!).toBeGreaterThanOrEqual(settled.seen.t0!.lastOld + 3);
    expect([await answer(`www.${domain.name}`), await answer(domain.name, 'NS')]).toEqual(['192.0.2.80', 'ns1.oldknot.example.']);
    await driver.done('raise');
    expect(await lines(real.oldAddress(domain), domain)).toEqual([...before, `extra.${domain.name}. 6 IN A 192.0.2.98`].sort());
    expect((await lines(real.newAddress(domain), domain)).filter((line) => line.includes(' NS '))).toEqual([
      expect.stringContaining('NS ns1.oldknot.example.'),
    ]);
    await driver.act('/close');
  });

  beside.it('before the parent has published anything: what was submitted is taken back, and nobody was ever led away', async () => {
    const domain = DOMAINS.early;
    const driver = await real.lowered(domain);
    await real.submitted(driver);
    const { back } = (await driver.move()).legs[0]!;
    expect(back.map(({ how, ruledOut }) => [how, ruledOut !== null])).toEqual([
      ['records', true],
      ['nameservers', false],
    ]);
    await expect(driver.act('/back', { how: 'records' })).rejects.toThrow(/does not publish the new nameservers everywhere/);
    await driver.act('/back', { how: 'nameservers' });
    await driver.done('served');
    await driver.done('settle');
    expect(await answer(`www.${domain.name}`)).toBe('192.0.2.80');
    await driver.done('raise');
    expect((await lines(real.oldAddress(domain), domain)).filter((line) => line.includes('192.0.2.80'))).toEqual(
      [domain.name, `www.${domain.name}`].map((name) => `${name}. 6 IN A 192.0.2.80`),
    );
    await driver.act('/close');
    await refused(driver, '/push', /ended|closed/);
  });
});

/** The push says what stands in its way; of the leg that is under way now. */
async function stoppedAt(driver: Driver, words: RegExp): Promise<void> {
  let last = '';
  await until(
    () => `the push stops with ${String(words)}: ${last}`,
    async () => {
      last = (await driver.move()).legs.at(-1)!.steps.find((step) => step.id === 'push')!.text ?? '';
      return words.test(last);
    },
  );
}
