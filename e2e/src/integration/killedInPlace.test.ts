import { Message, Name, RRset, TYPE_CODES, parseRdata, printRdata } from '@wanderon/core';
import { DEMO_PASSWORD } from '../../../command/src/demoData';
import { Api } from '../../../command/src/api';
import { Driver } from '../support/drive';
import { LabZones } from '../support/labZones';
import { World, openWorld } from '../support/world';

/**
 * Two people move two names of one domain at once, one of them and back again; a third move puts a token into a live zone and changes
 * the website there; somebody else edits beside them; and the server is killed at every step and around every update.
 */
describe('a server that is killed while records change in place', () => {
  const ZONE = Name.parse('weaving-mill.example.');
  const [ONE, TWO] = ['loom.weaving-mill.example', 'dye.weaving-mill.example'];
  const RADIO = Name.parse('gull-radio.example.');
  /** Updates that a DNS host applied and that changed something: who, and which values with low or high TTLs. */
  const applied: string[] = [];
  const kills = new Set<string>();
  let world: World;
  let zones: LabZones;

  const whoOf = (message: Message): string => {
    const owners = message.authorities.map((record) => record.owner.toString());
    return owners.some((owner) => owner.startsWith('loom')) ? 'one' : owners.some((owner) => owner.startsWith('dye')) ? 'two' : 'radio';
  };
  /** What somebody else edits is not ours. */
  const isOthers = (message: Message): boolean => message.authorities.some((record) => record.owner.toString().startsWith('noticeboard'));
  /** The second name goes the same road as the first; it is there to be left alone. */
  const isKilled = (message: Message): boolean => !isOthers(message) && whoOf(message) !== 'two';
  /** What an update does: the token, or where it leads and whether for long. */
  const whatOf = (message: Message): string => {
    const added = message.authorities.filter((record) => record.cls === 1);
    const text = added.map((record) => printRdata(record.type, record.data)).join(' ');
    if (added.every((record) => record.owner.toString().startsWith('_larkspur'))) return 'token';
    return `${/thornwick|larkspur\.example|203\.0\.113/.test(text) ? 'new' : 'old'} ${added.some((record) => record.ttl > 300) ? 'high' : 'low'}`;
  };

  async function killOnce(point: string): Promise<boolean> {
    if (kills.has(point)) return false;
    kills.add(point);
    await world.server.kill();
    return true;
  }

  let edited = 0;
  let editing = Promise.resolve();
  beforeAll(async () => {
    world = await openWorld({
      rate: 60,
      more: [{ zone: ZONE.toString(), client: 'Weaving mill', extra: ['loom CNAME sites.saltmarsh.example.', 'dye CNAME sites.saltmarsh.example.'] }],
      watcher: {
        arrived: async (_host, message) => (isKilled(message) && (await killOnce(`${whoOf(message)} ${countOf(whoOf(message))} lost`)) ? 'drop' : undefined),
        applied: async (_host, message, changed) => {
          const who = whoOf(message);
          if (isOthers(message)) return;
          const point = `${who} ${countOf(who)} unanswered`;
          if (changed) applied.push(`${who}: ${whatOf(message)}`);
          if (isKilled(message)) await killOnce(point);
        },
      },
    });
    zones = await LabZones.of(world.lab.address);
  });
  afterAll(() => world.close());

  const countOf = (who: string): number => applied.filter((one) => one.startsWith(`${who}:`)).length;
  /** Somebody edits another set of the zone, again and again; one edit after the other. */
  async function editBeside(): Promise<void> {
    const owner = Name.parse('noticeboard.weaving-mill.example.');
    const set = (count: number): RRset => ({ owner, type: TYPE_CODES.TXT, ttl: 600, data: [parseRdata(TYPE_CODES.TXT, `"edit ${count}"`)] });
    editing = editing.then(async () => {
      await zones.edit('oldquay', ZONE, [{ owner, type: TYPE_CODES.TXT, before: edited > 0 ? set(edited) : undefined, after: set(edited + 1) }]);
      edited += 1;
    });
    await editing;
  }

  it('touches nothing outside of a scope, and does nothing twice', async () => {
    const { lab, server } = world;
    let starting: Promise<void> | undefined;
    const restart = async (): Promise<void> => {
      if (server.dead) starting ??= server.start().finally(() => (starting = undefined));
      await starting;
    };
    const other = await new Api(server.address).signIn('admin', DEMO_PASSWORD);
    const before = { mill: await zones.lines('oldquay', ZONE), radio: await zones.lines('oldquay', RADIO) };
    const step = async (driver: Driver, kind: string): Promise<void> => {
      await driver.done(kind);
      await editBeside();
      // Around every update each move has its own; between steps where little else is in the way.
      if (kind === 'lowered' || kind === 'changed') await killOnce(`${kind} done`);
    };
    const prepared = async (api: Api, domain: string, scope: 'whole' | 'name', web: string): Promise<Driver> => {
      const driver = await Driver.begin(api, domain, restart, scope);
      await step(driver, 'survey');
      await driver.act('/hosts', { way: 'repoint', newDnsHost: null, newWebHost: await driver.hostId(web) });
      return driver;
    };
    const lowered = async (driver: Driver): Promise<void> => {
      await driver.act('/approve', { lowerAt: null, plannedSwitch: null });
      await step(driver, 'lower');
      await step(driver, 'lowered');
    };
    /** Through the gate, whatever of the web host's matters or of the website is in the way. */
    const changed = async (driver: Driver): Promise<void> => {
      // A server that is away for long leaves a gap, after which what was remembered runs out once more.
      await driver.throughGate(({ lines }) => lab.clock.setRate(lines.some((one) => one.key === 'run out' && !one.holds) ? 3600 : 60));
      await step(driver, 'change');
      await step(driver, 'changed');
    };
    const [one, two, radio] = await Promise.all([
      prepared(world.api, ONE, 'name', 'Thornwick'),
      prepared(other, TWO, 'name', 'Thornwick'),
      prepared(other, RADIO.toString().replace(/\.$/, ''), 'whole', 'Larkspur'),
    ]);
    // The token goes into the live zone beforehand.
    const need = (await radio.move()).legs[0]!.asked!.needs.find((one) => one.early)!;
    await radio.act('/given', { requirement: need.id, data: 'larkspur-site=0123456789abcdef' });
    await radio.way('early', 'send early');
    await step(radio, 'early');
    await Promise.all([one, two, radio].map(lowered));
    lab.clock.setRate(3600);
    await Promise.all(
      [one, two, radio].map((driver) =>
        driver.until('its TTLs have run out', (move) => move.legs[0]!.gate.lines.every((line) => line.key !== 'run out' || line.holds)),
      ),
    );
    lab.clock.setRate(60);
    for (const driver of [two, radio, one]) await changed(driver);
    // One of them goes back, before it is settled.
    await one.act('/back', { how: 'records' });
    await killOnce('backing out');
    await step(one, 'change');
    await step(one, 'changed');
    lab.clock.setRate(3600);
    await Promise.all([one, two, radio].map((driver) => step(driver, 'settle')));
    lab.clock.setRate(60);
    await Promise.all([one, two, radio].map((driver) => step(driver, 'raise')));

    expect(applied.filter((all) => all.startsWith('one'))).toEqual(['one: old low', 'one: new low', 'one: old low', 'one: old high']);
    expect(applied.filter((all) => all.startsWith('two'))).toEqual(['two: old low', 'two: new low', 'two: new high']);
    expect(applied.filter((all) => all.startsWith('radio'))).toEqual(['radio: token', 'radio: old low', 'radio: new low', 'radio: new high']);
    for (const who of ['one', 'radio'])
      for (let count = 0; count < countOf(who); count++)
        expect([who, count, kills.has(`${who} ${count} lost`), kills.has(`${who} ${count} unanswered`)]).toEqual([who, count, true, true]);
    // Each zone is as it was but for what was asked, and what somebody else did.
    const board = `noticeboard.weaving-mill.example. 600 TXT "edit ${edited}"`;
    const wanted = before.mill.map((line) => (line.startsWith(`${TWO}. `) ? line.replace('sites.saltmarsh.example.', 'edge.thornwick.example.') : line));
    // What the web host asks for at the domain itself is there for the move that goes on, and for the one that went back.
    const proof = '_thornwick.weaving-mill.example. 3600 TXT "site=weaving-mill.example"';
    expect(await zones.lines('oldquay', ZONE)).toEqual([...wanted, board, proof].sort());
    const mine = /^(?:gull-radio|www\.gull-radio|_larkspur\.gull-radio|_acme-challenge\.gull-radio)\.example\. \d+ (?:A|AAAA|CNAME|TXT) /;
    const others = (all: readonly string[]): string[] => all.filter((line) => !mine.test(line));
    expect(others(await zones.lines('oldquay', RADIO))).toEqual(others(before.radio));
    for (const driver of [one, two, radio]) {
      const { events } = await driver.call<{ events: { kind: string; text: string }[] }>('GET', `/api/moves/${driver.id}/events`);
      expect(events.filter((event) => event.text.startsWith('Sending')).length).toBe(driver === two ? 3 : 4);
    }
  });
});
