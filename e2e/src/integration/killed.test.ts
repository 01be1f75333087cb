import { Name, typeMnemonic, Message } from '@wanderon/core';
import { Api } from '../../../command/src/api';
import { DEMO_PASSWORD } from '../../../command/src/demoData';
import { World, openWorld } from '../support/world';
import { Driver } from '../support/drive';

/** The server is killed at every durable step and around every outward action of one move. */
describe('a server that is killed again and again', () => {
  const ZONE = 'canoe-yard.example.';
  /** Every change that a DNS host applied: host, and what it was for. */
  const applied: string[] = [];
  const kills = new Map<string, number>();
  let world: World;

  /** What an update is for, from what it holds. */
  function purpose(host: string, message: Message): string {
    const updates = message.authorities.filter((record) => record.cls === 1);
    const apexNs = updates.some((record) => typeMnemonic(record.type) === 'NS' && record.owner.equals(Name.parse(ZONE)));
    const turned = updates.some((record) => typeMnemonic(record.type) === 'NS' && Buffer.from(record.data).includes('quillmere'));
    if (host === 'oldquay') return turned ? 'turn' : apexNs ? 'lower' : 'other';
    return message.authorities.some((record) => record.ttl > 300) ? 'raise' : 'push';
  }

  async function killOnce(point: string): Promise<boolean> {
    if (kills.has(point)) return false;
    kills.set(point, 1);
    await world.server.kill();
    return true;
  }

  beforeAll(async () => {
    world = await openWorld({
      rate: 60,
      watcher: {
        // First the message is lost with the process that sent it, then it is applied and nobody hears the answer.
        arrived: async (host, message) => ((await killOnce(`${purpose(host, message)} lost`)) ? 'drop' : undefined),
        applied: async (host, message, changed) => {
          if (changed) applied.push(purpose(host, message));
          await killOnce(`${purpose(host, message)} unanswered`);
        },
      },
    });
  });
  afterAll(() => world.close());

  it('completes the move with each outward action done exactly once', async () => {
    const { lab, server, api } = world;
    const restart = async (): Promise<void> => {
      if (server.dead) await server.start();
    };
    const driver = await Driver.begin(api, 'canoe-yard.example', restart);
    // Fast enough not to wait long, slow enough for looks to come as they are planned.
    const speed = (rate: number): void => lab.clock.setRate(rate);
    const doneAndKilled = async (kind: string): Promise<void> => {
      await driver.done(kind);
      await killOnce(`${kind} done`);
    };
    await killOnce('begun');
    await doneAndKilled('survey');
    await driver.act('/hosts', { newDnsHost: await driver.hostId('Quillmere'), newWebHost: await driver.hostId('Thornwick') });
    await killOnce('choose done');
    lab.addDomain('quillmere', ZONE);
    await driver.act('/push');
    await doneAndKilled('push');
    await doneAndKilled('served');
    await driver.act('/approve', { lowerAt: null, plannedSwitch: null });
    await doneAndKilled('lower');
    await doneAndKilled('lowered');
    speed(3600);
    await driver.until('the gate opens', (move) => move.legs[0]!.gate.open);
    speed(60);
    await driver.act('/submitted');
    await killOnce('submitted');
    lab.changeNameservers(ZONE, (await driver.move()).legs[0]!.newNameservers);
    await doneAndKilled('switch');
    await doneAndKilled('turn');
    speed(3600);
    await doneAndKilled('settle');
    speed(60);
    await doneAndKilled('raise');
    const closed = await driver.act('/close');

    expect(closed.state).toBe('closed');
    expect([...kills.keys()].sort()).toEqual(
      [
        'begun',
        'choose done',
        'lower done',
        'lower lost',
        'lower unanswered',
        'lowered done',
        'push done',
        'push lost',
        'push unanswered',
        'raise done',
        'raise lost',
        'raise unanswered',
        'served done',
        'settle done',
        'submitted',
        'survey done',
        'switch done',
        'turn done',
        'turn lost',
        'turn unanswered',
      ].sort(),
    );
    expect([...applied].sort()).toEqual(['lower', 'push', 'raise', 'turn']);
    const { events } = await driver.call<{ events: { kind: string; text: string }[] }>('GET', `/api/moves/${driver.id}/events`);
    for (const kind of ['push', 'lower', 'turn', 'raise'])
      expect(events.filter((event) => event.kind === kind && event.text.startsWith('Sending'))).toHaveLength(1);
    // What is seen may be no longer so while the server is away, and is told as that; it is never told twice.
    for (const { title } of closed.legs[0]!.steps) {
      const told = events
        .filter((event) => event.kind === 'step' && event.text.startsWith(`${title}: `))
        .map((event) => event.text.startsWith(`${title}: done`));
      told.reverse().forEach((done, index) => expect([title, done]).toEqual([title, index % 2 === 0]));
    }
  });
});

describe('two servers on one database', () => {
  let world: World;
  const applied: string[] = [];
  beforeAll(async () => {
    world = await openWorld({ watcher: { applied: (host, _message, changed) => void (changed && applied.push(host)) } });
  });
  afterAll(() => world.close());

  it('share the work: a move goes on under either, and nothing is done twice', async () => {
    const { lab, server } = world;
    const second = await server.another();
    try {
      const apis = [world.api, await new Api(second.address).signIn('technician', DEMO_PASSWORD)];
      const first = await Driver.begin(apis[0]!, 'gull-radio.example');
      const other = new Driver(apis[1]!, first.id);
      await other.done('survey');
      lab.addDomain('quillmere', 'gull-radio.example.');
      await first.act('/hosts', { newDnsHost: await first.hostId('Quillmere'), newWebHost: await first.hostId('Thornwick') });
      // Both press Push at once; one of them may be told that it was done.
      await Promise.allSettled([first.act('/push'), other.act('/push')]);
      await Promise.allSettled([first.act('/approve', { lowerAt: null, plannedSwitch: null }), other.act('/approve', { lowerAt: null, plannedSwitch: null })]);
      await other.done('lower');
      lab.clock.setRate(60);
      await first.done('served');
      expect(applied.sort()).toEqual(['oldquay', 'quillmere']);
      const { events } = await other.call<{ events: { kind: string; text: string }[] }>('GET', `/api/moves/${first.id}/events`);
      expect(events.filter((event) => event.text.startsWith('Sending'))).toHaveLength(2);
    } finally {
      await second.stop('SIGKILL');
    }
  });
});
