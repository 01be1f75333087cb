import { WaysView } from '@wanderon/contract';
import { Name, TYPE_CODES, WayId, printRdata } from '@wanderon/core';
import { Driver } from '../support/drive';
import { LabZones } from '../support/labZones';
import { World, openWorld } from '../support/world';

const OLD_WEB = '198.51.100.80';
const NEW_WEB = '203.0.113.80';
/** It gives stale answers first: no bound of TTLs holds for it. */
const STALE = 'Fulmar';
/** Lab seconds in a real one while answers drain. */
const FAST = 3600;

/** What is said of how long each way takes, against what the lab's resolvers give to somebody who asks them all the time. */
describe('predicted times', () => {
  let world: World;
  let zones: LabZones;
  let watching = true;
  /** When each resolver was last asked and gave something else than is wanted, in lab time; by domain and what is wanted there now. */
  const unwanted = new Map<string, Map<string, number>>();
  const wanted = new Map<string, string>();
  let watch: Promise<void>;

  beforeAll(async () => {
    world = await openWorld({ rate: 60 });
    zones = await LabZones.of(world.lab.address);
    watch = askOn();
  });
  afterAll(async () => {
    watching = false;
    await watch;
    await world.close();
  });

  /** Asks every resolver for the website of every domain, over and over. */
  async function askOn(): Promise<void> {
    const { lookouts } = zones;
    while (watching) {
      await Promise.all(
        [...wanted].flatMap(([domain, address]) =>
          lookouts
            .filter(({ name }) => name !== STALE)
            .map(async ({ name, address: at }) => {
              const asked = world.lab.clock.now();
              const answer = await zones.client
                .ask({ address: at }, Name.parse(`www.${domain}.`), TYPE_CODES.A, { recursive: true, timeout: 5000 })
                .catch(() => undefined);
              if (!answer || (answer.rcode !== 0 && answer.rcode !== 3)) return;
              const data = answer.answers.filter((record) => record.type === TYPE_CODES.A).map((record) => printRdata(record.type, record.data));
              // Where what is wanted has changed while it was asked, the answer is to the question before.
              if (wanted.get(domain) === address && data.join() !== address) unwanted.get(domain)!.set(name, asked);
            }),
        ),
      );
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
  }
  function want(domain: string, address: string): void {
    unwanted.set(domain, new Map());
    wanted.set(domain, address);
  }
  const lastOf = (domain: string): number => Math.max(0, ...unwanted.get(domain)!.values());

  /** Chosen and prepared; gives what the way was said to take from the cutover until settled, before anything was chosen. */
  async function prepared(domain: string, way: WayId): Promise<{ driver: Driver; settling: number }> {
    const driver = await Driver.begin(world.api, domain);
    await driver.done('survey');
    const { ways } = await driver.call<WaysView>('GET', `${await driver.leg()}/ways`);
    const { settling } = ways.find((one) => one.way === way)!;
    await driver.act('/hosts', {
      way,
      newDnsHost: way === 'repoint' ? null : await driver.hostId('Quillmere'),
      newWebHost: await driver.hostId('Thornwick'),
    });
    if (way !== 'repoint') {
      world.lab.addDomain('quillmere', `${domain}.`);
      await driver.act('/push');
      await driver.done('served');
    }
    await driver.act('/approve', { lowerAt: null, plannedSwitch: null });
    await driver.done('lowered');
    return { driver, settling: settling! };
  }
  /** Through the gate, whatever is said of the website. */
  async function submitted(driver: Driver): Promise<void> {
    await driver.until(
      'it is decided',
      (move) => move.legs.at(-1)!.seen.ts !== null,
      async () => {
        await driver.letPass();
        const { gate } = (await driver.move()).legs.at(-1)!;
        world.lab.clock.setRate(gate.open ? 60 : FAST);
        if (gate.open) await driver.tried('/submitted');
      },
    );
    world.lab.clock.setRate(60);
  }
  /** The leg's change is made, whatever it is, and seen. */
  async function changed(driver: Driver, domain: string): Promise<void> {
    const { kind, newNameservers } = (await driver.move()).legs.at(-1)!;
    await submitted(driver);
    if (kind === 'delegation') world.lab.changeNameservers(`${domain}.`, newNameservers);
    await driver.done(kind === 'delegation' ? 'switch' : 'changed');
    if (kind === 'delegation') await driver.done('turn');
  }
  /** Settled: not before the last answer that was not wanted; nor did that come later than was said. `takes` in seconds from t0. */
  async function heldTo(driver: Driver, domain: string, takes: number): Promise<void> {
    world.lab.clock.setRate(FAST);
    const leg = (await driver.done('settle')).legs.at(-1)!;
    world.lab.clock.setRate(60);
    const last = lastOf(domain);
    expect(last).toBeGreaterThan(0);
    expect(leg.times!.last.at!).toBeGreaterThanOrEqual(last);
    expect(leg.seen.t0!.firstNew + takes).toBeGreaterThanOrEqual(last);
  }

  it.each<[WayId, 'nameservers' | 'records', string]>([
    ['nameservers', 'nameservers', 'canoe-yard.example'],
    ['repoint', 'records', 'tidewater-choir.example'],
    ['nameservers', 'records', 'gull-radio.example'],
  ])('are held by every resolver: %s, and back by the %s', async (way, how, domain) => {
    want(domain, OLD_WEB);
    const { driver, settling } = await prepared(domain, way);
    want(domain, NEW_WEB);
    await changed(driver, domain);
    await heldTo(driver, domain, settling);
    await driver.done('raise');
    const { takes } = (await driver.move()).legs[0]!.back.find((back) => back.how === how)!;
    want(domain, OLD_WEB);
    await driver.act('/back', { how });
    await changed(driver, domain);
    await heldTo(driver, domain, takes!);
    await driver.done('raise');
    await driver.act('/close');
    wanted.delete(domain);
  });
});
