import { readFileSync } from 'node:fs';
import { MoveView, SweepView } from '@wanderon/contract';
import { Lab } from '@wanderon/lab';
import { Api, until } from '../../../command/src/api';
import { fillDemo } from '../../../command/src/demoData';
import { Driver, stepOf } from '../support/drive';
import { HostileNetwork } from '../support/hostileNetwork';
import { ServerUnderTest } from '../support/world';

/** Seconds of the job's time to the next look, and how fast that time goes. */
const EVERY = 60;
const RATE = 10;
const HEALTHY = 'canoe-yard.example';

/** Domains whose servers and pages are set up against whoever looks at them, all of them open at once. */
describe('a hostile network', () => {
  let lab: Lab;
  let network: HostileNetwork;
  let server: ServerUnderTest;
  let api: Api;
  beforeAll(async () => {
    lab = await Lab.open({ rate: RATE });
    network = await HostileNetwork.open(lab);
    server = await new ServerUnderTest({ WANDERON_LAB: lab.address, WANDERON_SURVEY_MINUTES: '0.7', WANDERON_LOOK_EVERY: String(EVERY) }).open();
    await fillDemo(server.address, lab.address, { bare: true });
    api = await server.signIn();
  });
  afterAll(async () => {
    await server?.close();
    network?.close();
    lab?.close();
  });

  it('holds up no other domain, ends each of its own with a sentence, and takes no more memory than there is', async () => {
    const hostile = await Promise.all(network.domains.map(async ({ name }) => Driver.begin(api, name)));
    const sweep = await api.call<SweepView>('POST', '/api/sweeps', { name: 'All of them', text: network.domains.map(({ name }) => name).join('\n') });
    // A domain of somebody else, meanwhile.
    const driver = await Driver.begin(api, HEALTHY);
    await driver.done('survey');
    await driver.act('/hosts', { newDnsHost: await driver.hostId('Quillmere'), newWebHost: await driver.hostId('Thornwick') });
    lab.addDomain('quillmere', `${HEALTHY}.`);
    await driver.act('/push');
    const lowerAt = Math.floor(lab.clock.now()) + 3 * EVERY;
    await driver.act('/approve', { lowerAt, plannedSwitch: null });
    await driver.done('lower');
    const { events } = await driver.call<{ events: { kind: string; text: string; at: number }[] }>('GET', `/api/moves/${driver.id}/events`);
    const fired = events.find((event) => event.kind === 'lower' && event.text.startsWith('Sending'))!;
    expect(fired.at).toBeGreaterThanOrEqual(lowerAt);
    expect(fired.at).toBeLessThanOrEqual(lowerAt + 2 * EVERY);

    const ended = (move: MoveView): boolean => ['done', 'stopped'].includes(stepOf(move, 'survey').state);
    for (const [index, one] of hostile.entries()) await one.until(`the survey of ${network.domains[index]!.name} ends`, ended);
    const rows = await until(
      'the sweep is over',
      async () => {
        const now = await api.call<SweepView>('GET', `/api/sweeps/${sweep.id}`);
        return now.state === 'done' ? now.rows : undefined;
      },
      300,
    );
    const told: [string, string, string][] = [];
    for (const [index, one] of hostile.entries()) {
      const move = await one.move();
      const row = rows.find(({ domain }) => domain === network.domains[index]!.name)!;
      const survey = stepOf(move, 'survey');
      told.push([row.domain, survey.text ?? (await coverage(one)), row.problem ?? JSON.stringify(row.gist)]);
    }
    if (process.env['SHOW_SERVER']) console.error(told, network.toStrangers, peak(server.pid));
    // Nobody was told that such a zone is whole, and nobody was left without a word.
    for (const [domain, move, row] of told) {
      expect([domain, move]).toEqual([domain, expect.stringMatching(/\w.*[.]$/s)]);
      expect([domain, row]).toEqual([domain, expect.stringMatching(/\w/)]);
      expect([domain, `${move} ${row}`]).toEqual([
        domain,
        expect.not.stringMatching(/"grade":"whole"|is whole|undefined|fault of Wanderon|error of Wanderon/i),
      ]);
    }
    // What the parent says of a server's address is enough to ask it there.
    expect(told.filter(([domain]) => domain.endsWith('-transfer.example')).map(([, move]) => move.slice(0, 8))).toEqual(['partial:', 'partial:']);
    const odd = await hostile[network.domains.findIndex(({ name }) => name === 'odd-page.example')]!.survey();
    expect(odd.findings.map((one) => one.text).join(' ')).toContain('Only the parent says where ns.odd-page.example is');
    // Two surveys looked for the way.
    expect(network.toStrangers).toBeGreaterThan(0);
    expect(network.toStrangers).toBeLessThanOrEqual(2 * 300);
    expect(network.toRegistry.size).toBe(HostileNetwork.registries);
    expect(peak(server.pid)).toBeLessThan(600);
    expect(server.said.filter((line) => /unhandled|out of memory|TypeError|RangeError/i.test(line))).toEqual([]);
  });

  async function coverage(one: Driver): Promise<string> {
    const { coverage: found } = await one.survey();
    return `${found.grade}: ${found.reasons.join(' ')}`;
  }
});

/** Megabytes of memory that a process has had at the most. */
function peak(pid: number): number {
  return Number(/VmHWM:\s+(\d+) kB/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1]) / 1024;
}
