import { WaysView } from '@wanderon/contract';
import { Name, STARTING_TTL, TYPE_CODES, WayId, printRdata, rrsetFromText } from '@wanderon/core';
import { Driver, stepOf } from '../support/drive';
import { LabZones } from '../support/labZones';
import { World, openWorld } from '../support/world';

const OLD_WEB = '198.51.100.80';
const NEW_WEB = '203.0.113.80';
const OLD_SET = [1, 2].map((one) => `ns${one}.oldquay.example.`).join();
const NEW_SET = [1, 2, 3].map((one) => `ns${one}.quillmere.example.`).join();
/** It gives stale answers first: no bound of TTLs holds for it. */
const STALE = 'Fulmar';
/** Lab seconds in a real one, and while answers drain. */
const STEADY = 240;
const FAST = 3600;

interface Wanted {
  readonly owner: string;
  readonly type: 'A' | 'NS';
  /** Values, sorted. */
  readonly data: string;
}

/** What is said of how long each way takes, against what the lab's resolvers give to somebody who asks them all the time. */
describe('predicted times', () => {
  let world: World;
  let zones: LabZones;
  let watching = true;
  let drains = false;
  /** When each resolver was last asked and gave something else than is wanted, in lab time; by domain, and what is wanted there now. */
  const unwanted = new Map<string, Map<string, number>>();
  const wanted = new Map<string, Wanted>();
  let watch: Promise<void>;

  beforeAll(async () => {
    world = await openWorld({ rate: STEADY });
    zones = await LabZones.of(world.lab.address);
    watch = askOn();
  });
  afterAll(async () => {
    watching = false;
    await watch;
    await world.close();
  });

  /** Asks every resolver for what is wanted of every domain, over and over. */
  async function askOn(): Promise<void> {
    const { lookouts } = zones;
    while (watching) {
      await Promise.all(
        [...wanted].flatMap(([domain, want]) =>
          lookouts
            .filter(({ name }) => name !== STALE)
            .map(async ({ name, address: at }) => {
              const asked = world.lab.clock.now();
              const answer = await zones.client
                .ask({ address: at }, Name.parse(want.owner), TYPE_CODES[want.type], { recursive: true, timeout: 5000 })
                .catch(() => undefined);
              if (!answer || (answer.rcode !== 0 && answer.rcode !== 3)) return;
              const data = answer.answers.filter((record) => record.type === TYPE_CODES[want.type]).map((record) => printRdata(record.type, record.data));
              // Where what is wanted has changed while it was asked, the answer is to the question before.
              if (wanted.get(domain) === want && data.sort().join() !== want.data) unwanted.get(domain)!.set(name, asked);
            }),
        ),
      );
      // As often as it matters for what drains.
      await new Promise((resolve) => setTimeout(resolve, drains ? 20 : 200));
    }
  }
  function want(domain: string, data: string, type: Wanted['type'] = 'A'): void {
    unwanted.set(domain, new Map());
    wanted.set(domain, { owner: type === 'A' ? `www.${domain}.` : `${domain}.`, type, data });
  }
  const lastOf = (domain: string): number => Math.max(0, ...unwanted.get(domain)!.values());

  /** Surveyed; gives what the way is said to take from the cutover until settled, before anything is chosen. */
  async function begun(domain: string, way: WayId, unused = false): Promise<{ driver: Driver; settling: number }> {
    const { id } = await world.api.call<{ id: string }>('POST', '/api/moves', { domain, unused });
    const driver = new Driver(world.api, id);
    await driver.done('survey');
    const { ways } = await driver.call<WaysView>('GET', `${await driver.leg()}/ways`);
    return { driver, settling: ways.find((one) => one.way === way)!.settling! };
  }
  /** Chosen, and all done that comes before the cutover. */
  async function prepared(driver: Driver, domain: string, hosts: { way: WayId; dns?: true; web?: true; fresh?: object }): Promise<void> {
    await driver.act('/hosts', {
      way: hosts.way,
      newDnsHost: hosts.dns ? await driver.hostId('Quillmere') : null,
      newWebHost: hosts.web ? await driver.hostId('Thornwick') : null,
      ...(hosts.fresh && { fresh: hosts.fresh }),
    });
    if ((await driver.move()).legs.at(-1)!.kind === 'delegation') {
      world.lab.addDomain('quillmere', `${domain}.`);
      await driver.act('/push');
      await driver.done('served');
    }
    await driver.act('/approve', { lowerAt: null, plannedSwitch: null });
    await driver.until('nothing is left to be lowered', (move) => ['done', 'left', undefined].includes(stepOf(move, 'lowered')?.state));
  }
  /** Through the gate, whatever is said of the website. */
  async function submitted(driver: Driver): Promise<void> {
    await driver.until(
      'it is decided',
      (move) => move.legs.at(-1)!.seen.ts !== null,
      async () => {
        await driver.letPass();
        const { gate } = (await driver.move()).legs.at(-1)!;
        world.lab.clock.setRate(gate.open ? STEADY : FAST);
        if (gate.open) await driver.tried('/submitted');
      },
    );
    world.lab.clock.setRate(STEADY);
  }
  /** The leg's change is made, whatever it is, and seen. */
  async function changed(driver: Driver, domain: string): Promise<void> {
    const { kind, newNameservers } = (await driver.move()).legs.at(-1)!;
    await submitted(driver);
    if (kind === 'delegation') world.lab.changeNameservers(`${domain}.`, newNameservers);
    await driver.done(kind === 'delegation' ? 'switch' : 'changed');
    // Where nothing was delegated before there is no old zone.
    if (stepOf(await driver.move(), 'turn')) await driver.done('turn');
  }
  /** Settled, and not before the last answer that was not wanted: gives how long that came after t0, in seconds. */
  async function held(driver: Driver, domain: string): Promise<number> {
    drains = true;
    world.lab.clock.setRate(FAST);
    const leg = (await driver.done('settle')).legs.at(-1)!;
    world.lab.clock.setRate(STEADY);
    drains = false;
    const last = lastOf(domain);
    expect(last).toBeGreaterThan(0);
    expect(leg.times!.last.at!).toBeGreaterThanOrEqual(last);
    return last - leg.seen.t0!.firstNew;
  }

  it.each<[WayId, 'nameservers' | 'records', string]>([
    ['nameservers', 'nameservers', 'canoe-yard.example'],
    ['repoint', 'records', 'tidewater-choir.example'],
    ['nameservers', 'records', 'gull-radio.example'],
  ])('are held by every resolver: %s, and back by the %s', async (way, how, domain) => {
    want(domain, OLD_WEB);
    const { driver, settling } = await begun(domain, way);
    await prepared(driver, domain, { way, web: true, ...(way === 'nameservers' && { dns: true }) });
    want(domain, NEW_WEB);
    await changed(driver, domain);
    expect(await held(driver, domain)).toBeLessThanOrEqual(settling);
    await driver.done('raise');
    const { takes } = (await driver.move()).legs[0]!.back.find((back) => back.how === how)!;
    want(domain, OLD_WEB);
    await driver.act('/back', { how });
    await changed(driver, domain);
    expect(await held(driver, domain)).toBeLessThanOrEqual(takes!);
    await driver.done('raise');
    await driver.act('/close');
    wanted.delete(domain);
  });

  it.each<[WayId, string]>([
    ['nameservers first', 'lighthouse-museum.example'],
    ['website first', 'xn--crmerie-alder-xgb.example'],
  ])('are held by every resolver in both legs: %s', async (way, domain) => {
    const { driver, settling } = await begun(domain, way);
    let after = 0;
    for (const [index, kind] of (way === 'website first' ? ['repoint', 'delegation'] : ['delegation', 'repoint']).entries()) {
      const isWeb = kind === 'repoint';
      if (index > 0) {
        await driver.call('POST', `${await driver.leg()}/next`);
        await driver.done('survey');
      }
      const type = isWeb ? 'A' : 'NS';
      want(domain, isWeb ? OLD_WEB : OLD_SET, type);
      if (index === 0) await prepared(driver, domain, { way, dns: true, web: true });
      else await prepared(driver, domain, isWeb ? { way: 'repoint', web: true } : { way: 'nameservers', dns: true });
      want(domain, isWeb ? NEW_WEB : NEW_SET, type);
      await changed(driver, domain);
      after += await held(driver, domain);
      await driver.done('raise');
    }
    // Of what was said the lowering for the second leg is a part.
    expect(after).toBeLessThanOrEqual(settling);
    await driver.act('/close');
    wanted.delete(domain);
  });

  it('are held by every resolver: into another account behind the same nameservers', async () => {
    const domain = 'tidewater-choir.example';
    const zone = Name.parse(`${domain}.`);
    want(domain, OLD_WEB);
    const { driver, settling } = await begun(domain, 'another account');
    await driver.act('/hosts', { way: 'another account', newDnsHost: await driver.hostId('Oldquay'), newWebHost: await driver.hostId('Thornwick') });
    await driver.act('/approve', { lowerAt: null, plannedSwitch: null });
    await driver.way('push', 'leave');
    await driver.done('lowered');
    await submitted(driver);
    // Somebody has typed it there, and the host lets that account answer.
    want(domain, NEW_WEB);
    const before = await zones.at('oldquay', zone);
    const rows = (await driver.ledger()).rulings.filter((row) => row.planned && (row.ruling === 'repoint' || row.ruling === 'new'));
    const changes = rows.map(({ planned }) => {
      const after = rrsetFromText({ ...planned!, ttl: Math.min(planned!.ttl, STARTING_TTL) });
      return { owner: after.owner, type: after.type, before: before.find((set) => set.type === after.type && set.owner.equals(after.owner)), after };
    });
    await zones.edit('oldquay', zone, changes);
    await driver.done('changed');
    // The way alone changes no value, which was said; with another web host at once it is the leg that says until when.
    expect(settling).toBe(0);
    await held(driver, domain);
    wanted.delete(domain);
  });

  it('are held by every resolver that was told there is no such domain, where one is delegated for the first time', async () => {
    const domain = 'samphire-kitchen.example';
    want(domain, NEW_WEB);
    const { driver, settling } = await begun(domain, 'nameservers', true);
    await prepared(driver, domain, { way: 'nameservers', dns: true, web: true, fresh: { declineMail: true } });
    await changed(driver, domain);
    expect(await held(driver, domain)).toBeLessThanOrEqual(settling);
    await driver.done('raise');
    await driver.act('/close');
    wanted.delete(domain);
  });
});
