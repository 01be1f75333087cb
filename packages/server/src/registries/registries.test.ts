import { NetError, RdapBootstrap } from '@wanderon/net';
import { Clock } from '../clock/clock';
import { Config } from '../config';
import { Network } from '../network/network';
import { Registries } from './registries.service';
import { KeptList, RegistryListStore } from './registryList.store';

const ADDRESS = 'https://lists.example/dns.json';
const DAY = 86_400;
const list = (suffix: string): RdapBootstrap => ({ services: [[[suffix], [`https://rdap.${suffix}.example/`]]] });

/** The service with a world that gives what it is told to, and a database of one row. */
class Tried extends Registries {
  asked = 0;

  constructor(private readonly world: { now: number; gives: RdapBootstrap | NetError; kept: KeptList | undefined; address?: string; isAway?: boolean }) {
    super(
      {} as Config,
      { now: () => world.now } as Clock,
      { registryList: world.address } as Network,
      {
        get: () => Promise.resolve(world.kept),
        put: (_address: string, kept: KeptList) => {
          if (world.isAway) return Promise.reject(new Error('the database is away'));
          world.kept = kept;
          return Promise.resolve();
        },
      } as unknown as RegistryListStore,
    );
  }

  protected override fetch(): Promise<RdapBootstrap> {
    this.asked += 1;
    return this.world.gives instanceof NetError ? Promise.reject(this.world.gives) : Promise.resolve(this.world.gives);
  }
}

const world = (gives: RdapBootstrap | NetError = list('one'), kept?: KeptList) => ({ now: 1000, gives, kept, address: ADDRESS });
const settled = (): Promise<void> => new Promise((resolve) => setImmediate(resolve));

describe('the list of registration data services', () => {
  it('is fetched once for everybody who asks at a time, and kept', async () => {
    const of = world();
    const tried = new Tried(of);
    expect(await Promise.all([tried.services(), tried.services(), tried.services()])).toEqual([list('one'), list('one'), list('one')]);
    expect(await tried.services()).toEqual(list('one'));
    expect([tried.asked, of.kept?.fetchedAt]).toEqual([1, 1000]);
    // Another process, or the same one after a start, has it from there.
    const other = new Tried(of);
    expect([await other.services(), other.asked]).toEqual([list('one'), 0]);
  });

  it('is refreshed after a day while whoever asks has the one from before', async () => {
    const of = world();
    const tried = new Tried(of);
    await tried.services();
    Object.assign(of, { now: 1000 + DAY, gives: list('two') });
    expect(await tried.services()).toEqual(list('one'));
    await settled();
    expect(await tried.services()).toEqual(list('two'));
  });

  it('stays as it was where it does not come, and is tried again after an hour', async () => {
    const of = world();
    const tried = new Tried(of);
    await tried.services();
    Object.assign(of, { now: 1000 + DAY, gives: new NetError('timeout', 'nothing came') });
    for (const seconds of [0, 60, 3599]) {
      of.now = 1000 + DAY + seconds;
      expect(await tried.services()).toEqual(list('one'));
      await settled();
    }
    expect([tried.asked, of.kept?.problem]).toEqual([2, 'nothing came']);
    of.now = 1000 + DAY + 3600;
    await tried.services();
    await settled();
    expect(tried.asked).toBe(3);
  });

  it('that never came says why, and does not keep whoever asks waiting each time', async () => {
    const of = world(new NetError('timeout', 'nothing came'));
    const tried = new Tried(of);
    await expect(tried.services()).rejects.toThrow('the list of registration data services did not come: nothing came');
    await expect(tried.services()).rejects.toThrow(NetError);
    expect(tried.asked).toBe(1);
    Object.assign(of, { now: 1000 + 3600, gives: list('one') });
    expect(await tried.services()).toEqual(list('one'));
  });

  it('that cannot be kept holds nobody up, and is fetched again when it is asked for', async () => {
    const of = { ...world(), isAway: false };
    const tried = new Tried(of);
    await tried.services();
    Object.assign(of, { now: 1000 + DAY, gives: list('two'), isAway: true });
    expect(await tried.services()).toEqual(list('one'));
    await settled();
    of.isAway = false;
    expect(await tried.services()).toEqual(list('one'));
    await settled();
    expect(await tried.services()).toEqual(list('two'));
  });

  it('is none where none is wanted', async () => {
    const tried = new Tried({ now: 1000, gives: list('one'), kept: undefined });
    expect([await tried.services(), tried.asked]).toEqual([undefined, 0]);
  });
});
