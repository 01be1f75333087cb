import { Name, STARTING_TTL, WayId, rrsetFromText } from '@wanderon/core';
import { DrainingWorld } from '../support/drainingWorld';

const OLD_WEB = '198.51.100.80';
const NEW_WEB = '203.0.113.80';
const OLD_SET = [1, 2].map((one) => `ns${one}.oldquay.example.`).join();
const NEW_SET = [1, 2, 3].map((one) => `ns${one}.quillmere.example.`).join();

/** What is said of how long each way takes, against what the lab's resolvers give to somebody who asks them all the time. */
describe('predicted times', () => {
  let draining: DrainingWorld;

  beforeAll(async () => {
    draining = await DrainingWorld.open({ floor: false });
  });
  afterAll(() => draining.close());

  it.each<[WayId, 'nameservers' | 'records', string]>([
    ['nameservers', 'nameservers', 'canoe-yard.example'],
    ['repoint', 'records', 'tidewater-choir.example'],
    ['nameservers', 'records', 'gull-radio.example'],
  ])('are held by every resolver: %s, and back by the %s', async (way, how, domain) => {
    draining.want(domain, OLD_WEB);
    const { driver, settling } = await draining.begun(domain, way);
    await draining.prepared(driver, domain, { way, web: true, ...(way === 'nameservers' && { dns: true }) });
    draining.want(domain, NEW_WEB);
    await draining.changed(driver, domain);
    expect(await draining.held(driver, domain)).toBeLessThanOrEqual(settling);
    await driver.done('raise');
    const { takes } = (await driver.move()).legs[0]!.back.find((back) => back.how === how)!;
    draining.want(domain, OLD_WEB);
    await driver.act('/back', { how });
    await draining.changed(driver, domain);
    expect(await draining.held(driver, domain)).toBeLessThanOrEqual(takes!);
    await driver.done('raise');
    await driver.act('/close');
    draining.over(domain);
  });

  it.each<[WayId, string]>([
    ['nameservers first', 'lighthouse-museum.example'],
    ['website first', 'xn--crmerie-alder-xgb.example'],
  ])('are held by every resolver in both legs: %s', async (way, domain) => {
    const { driver, settling } = await draining.begun(domain, way);
    let after = 0;
    for (const [index, kind] of (way === 'website first' ? ['repoint', 'delegation'] : ['delegation', 'repoint']).entries()) {
      const isWeb = kind === 'repoint';
      if (index > 0) {
        await driver.call('POST', `${await driver.leg()}/next`);
        await driver.done('survey');
      }
      const type = isWeb ? 'A' : 'NS';
      draining.want(domain, isWeb ? OLD_WEB : OLD_SET, type);
      if (index === 0) await draining.prepared(driver, domain, { way, dns: true, web: true });
      else await draining.prepared(driver, domain, isWeb ? { way: 'repoint', web: true } : { way: 'nameservers', dns: true });
      draining.want(domain, isWeb ? NEW_WEB : NEW_SET, type);
      await draining.changed(driver, domain);
      after += await draining.held(driver, domain);
      await driver.done('raise');
    }
    // Of what was said the lowering for the second leg is a part.
    expect(after).toBeLessThanOrEqual(settling);
    await driver.act('/close');
    draining.over(domain);
  });

  it('are held by every resolver: into another account behind the same nameservers', async () => {
    const domain = 'tidewater-choir.example';
    const zone = Name.parse(`${domain}.`);
    draining.want(domain, OLD_WEB);
    const { driver, settling } = await draining.begun(domain, 'another account');
    await driver.act('/hosts', { way: 'another account', newDnsHost: await driver.hostId('Oldquay'), newWebHost: await driver.hostId('Thornwick') });
    await driver.act('/approve', { lowerAt: null, plannedSwitch: null });
    await driver.way('push', 'leave');
    await driver.done('lowered');
    await draining.submitted(driver);
    // Somebody has typed it there, and the host lets that account answer.
    draining.want(domain, NEW_WEB);
    const before = await draining.zones.at('oldquay', zone);
    const rows = (await driver.ledger()).rulings.filter((row) => row.planned && (row.ruling === 'repoint' || row.ruling === 'new'));
    const changes = rows.map(({ planned }) => {
      const after = rrsetFromText({ ...planned!, ttl: Math.min(planned!.ttl, STARTING_TTL) });
      return { owner: after.owner, type: after.type, before: before.find((set) => set.type === after.type && set.owner.equals(after.owner)), after };
    });
    await draining.zones.edit('oldquay', zone, changes);
    await driver.done('changed');
    // The way alone changes no value, which was said; with another web host at once it is the leg that says until when.
    expect(settling).toBe(0);
    await draining.held(driver, domain);
    draining.over(domain);
  });

  it('are held by every resolver that was told there is no such domain, where one is delegated for the first time', async () => {
    const domain = 'samphire-kitchen.example';
    draining.want(domain, NEW_WEB);
    const { driver, settling } = await draining.begun(domain, 'nameservers', true);
    await draining.prepared(driver, domain, { way: 'nameservers', dns: true, web: true, fresh: { declineMail: true } });
    await draining.changed(driver, domain);
    expect(await draining.held(driver, domain)).toBeLessThanOrEqual(settling);
    await driver.done('raise');
    await driver.act('/close');
    draining.over(domain);
  });
});

describe('predicted times where caches are assumed to keep everything for a quarter of an hour', () => {
  let draining: DrainingWorld;

  beforeAll(async () => {
    draining = await DrainingWorld.open({ floor: true });
  });
  afterAll(() => draining.close());

  it('are held by one that does as well', async () => {
    const domain = 'tidewater-choir.example';
    draining.want(domain, OLD_WEB);
    const { driver, settling } = await draining.begun(domain, 'repoint');
    await draining.prepared(driver, domain, { way: 'repoint', web: true });
    draining.want(domain, NEW_WEB);
    await draining.changed(driver, domain);
    expect(await draining.held(driver, domain)).toBeLessThanOrEqual(settling);
  });
});
