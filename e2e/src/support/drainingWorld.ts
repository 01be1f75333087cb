import { FrontView } from '@wanderon/contract';
import { Name, TYPE_CODES, WayId, printRdata } from '@wanderon/core';
import { Driver, stepOf } from './drive';
import { LabZones } from './labZones';
import { World, openWorld } from './world';

/** It gives stale answers first: no bound of TTLs holds for it. */
const STALE = 'Fulmar';
/** It keeps everything for so many seconds at least: a bound holds for it where that is assumed of caches. */
const FLOORED = { name: 'Plover', floor: 900 };
/** Lab seconds in a real one, and while answers drain. */
const STEADY = 240;
const FAST = 3600;

interface Wanted {
  readonly owner: string;
  readonly type: 'A' | 'NS';
  /** Values, sorted. */
  readonly data: string;
}

/** Moves in the lab, and what its resolvers give meanwhile to somebody who asks them all the time: all for which TTLs are a bound. */
export class DrainingWorld {
  private watching = true;
  private drains = false;
  /** When each resolver was last asked and gave something else than is wanted, in lab time; by domain, and what is wanted there now. */
  private readonly unwanted = new Map<string, Map<string, number>>();
  private readonly wanted = new Map<string, Wanted>();
  private watch: Promise<void> | undefined;

  private constructor(
    readonly world: World,
    readonly zones: LabZones,
    private readonly lookouts: LabZones['lookouts'],
  ) {}

  /** `floor`: whether caches are assumed to keep everything as long as the one does that keeps it longest. */
  static async open({ floor }: { readonly floor: boolean }): Promise<DrainingWorld> {
    const world = await openWorld({ rate: STEADY }, { WANDERON_CACHE_FLOOR: String(floor ? FLOORED.floor : 0) });
    const zones = await LabZones.of(world.lab.address);
    const lookouts = zones.lookouts.filter(({ name }) => name !== STALE && (floor || name !== FLOORED.name));
    const mine = new DrainingWorld(world, zones, lookouts);
    mine.watch = mine.askOn();
    return mine;
  }

  async close(): Promise<void> {
    this.watching = false;
    await this.watch;
    await this.world.close();
  }

  /** Asks every resolver for what is wanted of every domain, over and over. */
  private async askOn(): Promise<void> {
    while (this.watching) {
      await Promise.all(
        [...this.wanted].flatMap(([domain, want]) =>
          this.lookouts.map(async ({ name, address: at }) => {
            const asked = this.world.lab.clock.now();
            const answer = await this.zones.client
              .ask({ address: at }, Name.parse(want.owner), TYPE_CODES[want.type], { recursive: true, timeout: 5000 })
              .catch(() => undefined);
            if (!answer || (answer.rcode !== 0 && answer.rcode !== 3)) return;
            const data = answer.answers.filter((record) => record.type === TYPE_CODES[want.type]).map((record) => printRdata(record.type, record.data));
            // Where what is wanted has changed while it was asked, the answer is to the question before.
            if (this.wanted.get(domain) === want && data.sort().join() !== want.data) this.unwanted.get(domain)!.set(name, asked);
          }),
        ),
      );
      // As often as it matters for what drains.
      await new Promise((resolve) => setTimeout(resolve, this.drains ? 20 : 200));
    }
  }

  /** From now on that is to be answered, and anything else is noted. */
  want(domain: string, data: string, type: Wanted['type'] = 'A'): void {
    this.unwanted.set(domain, new Map());
    this.wanted.set(domain, { owner: type === 'A' ? `www.${domain}.` : `${domain}.`, type, data });
  }

  /** Nothing more is wanted of it. */
  over(domain: string): void {
    this.wanted.delete(domain);
  }

  /** Surveyed; gives what the way is said to take from the cutover until finished everywhere, before anything is chosen. */
  async begun(domain: string, way: WayId, unused = false): Promise<{ driver: Driver; settling: number }> {
    const { id } = await this.world.api.call<{ id: string }>('POST', '/api/moves', { domain, unused });
    const driver = new Driver(this.world.api, id);
    await driver.done('survey');
    const { ways } = await driver.call<FrontView>('POST', `${await driver.leg()}/front`, { given: null });
    return { driver, settling: ways.find((one) => one.way === way)!.settling! };
  }

  /** Chosen, and all done that comes before the cutover. */
  async prepared(driver: Driver, domain: string, hosts: { way: WayId; dns?: true; web?: true; fresh?: object }): Promise<void> {
    await driver.act('/hosts', {
      way: hosts.way,
      newDnsHost: hosts.dns ? await driver.hostId('Quillmere') : null,
      newWebHost: hosts.web ? await driver.hostId('Thornwick') : null,
      ...(hosts.fresh && { fresh: hosts.fresh }),
    });
    if ((await driver.move()).legs.at(-1)!.kind === 'delegation') {
      this.world.lab.addDomain('quillmere', `${domain}.`);
      await driver.act('/push');
      await driver.done('served');
    }
    await driver.act('/approve', { lowerAt: null, plannedSwitch: null });
    await driver.until('nothing is left to be lowered', (move) => ['done', 'left', undefined].includes(stepOf(move, 'lowered')?.state));
  }

  /** Through the gate, whatever is said of the website. */
  async submitted(driver: Driver): Promise<void> {
    await driver.throughGate((gate) => this.world.lab.clock.setRate(gate.open ? STEADY : FAST));
    this.world.lab.clock.setRate(STEADY);
  }

  /** The leg's change is made, whatever it is, and seen. */
  async changed(driver: Driver, domain: string): Promise<void> {
    const { kind, newNameservers } = (await driver.move()).legs.at(-1)!;
    await this.submitted(driver);
    if (kind === 'delegation') this.world.lab.changeNameservers(`${domain}.`, newNameservers);
    await driver.done(kind === 'delegation' ? 'switch' : 'changed');
    // Where nothing was delegated before there is no old zone.
    if (stepOf(await driver.move(), 'turn')) await driver.done('turn');
  }

  /** Settled, and not before the last answer that was not wanted: gives how long that came after t0, in seconds. */
  async held(driver: Driver, domain: string): Promise<number> {
    this.drains = true;
    this.world.lab.clock.setRate(FAST);
    const leg = (await driver.done('settle')).legs.at(-1)!;
    this.world.lab.clock.setRate(STEADY);
    this.drains = false;
    const last = Math.max(0, ...this.unwanted.get(domain)!.values());
    expect(last).toBeGreaterThan(0);
    expect(leg.times!.last.at!).toBeGreaterThanOrEqual(last);
    return last - leg.seen.t0!.firstNew;
  }
}
