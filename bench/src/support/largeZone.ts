import { ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { LedgerPage, MoveView } from '@wanderon/contract';
import { until } from '../../../command/dist/api';
import { freePort } from '../../../command/dist/postgres';
import { BenchApp, startApp } from './app';
import { startKnot } from './knot';
import { measure } from './measure';

const SETS = 60_000;
const KEY = { name: 'bench.key.', algorithm: 'hmac-sha256', secret: Buffer.alloc(32, 5).toString('base64') };
const AT = { root: '198.51.100.1', parent: '198.51.100.2', old: '198.51.100.3', fresh: '198.51.100.4' };
/** Transfers by dig, of which the median is the reference. */
const REFERENCE_ROUNDS = 5;

const zoneFile = (domain: string, server: string, more: string): string =>
  `$ORIGIN ${domain}.\n$TTL 3600\n@ SOA ${server}. host 1 7200 900 1209600 300\n@ NS ${server}.\n${more}`;

/** One zone of 60,000 sets between two knots, from its survey to the new zone being served, each part against dig's transfer of the same zone. */
export async function largeZone(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'wanderon-bench-'));
  const knots: ChildProcess[] = [];
  const ports = { root: await freePort(), parent: await freePort(), old: await freePort(), fresh: await freePort() };
  const start = async (at: keyof typeof AT, zones: Readonly<Record<string, string>>): Promise<void> => {
    const files = Object.entries(zones).map(([domain, text], index) => {
      const file = join(folder, `${at}-${index}.zone`);
      writeFileSync(file, text);
      return { domain, file, transfer: at === 'old' || at === 'fresh', sign: false };
    });
    knots.push(await startKnot(folder, ports[at], files, KEY, { update: true }));
  };
  const names = Array.from({ length: SETS }, (_, index) => `name-${index} A 192.0.2.${index % 250}\n`).join('');
  const usual = '@ A 192.0.2.251\nwww A 192.0.2.251\n@ MX 10 mail\nmail A 192.0.2.252\n';
  const glue = `nic A ${AT.parent}\nold NS ns1.old\nns1.old A ${AT.old}\nfresh NS ns1.fresh\nns1.fresh A ${AT.fresh}\nlarge NS ns1.old\n`;
  let app: BenchApp | undefined;
  try {
    await start('root', {
      '': `$TTL 3600\n. SOA root.bench.test. host.bench.test. 1 60 60 600 60\n. NS root.bench.test.\nroot.bench.test. A ${AT.root}\nexample. NS nic.example.\nnic.example. A ${AT.parent}\n`,
    });
    await start('parent', { example: zoneFile('example', 'nic.example', glue) });
    await start('old', {
      'old.example': zoneFile('old.example', 'ns1.old.example', `ns1 A ${AT.old}\n`),
      'large.example': zoneFile('large.example', 'ns1.old.example', usual + names),
    });
    await start('fresh', {
      'fresh.example': zoneFile('fresh.example', 'ns1.fresh.example', `ns1 A ${AT.fresh}\n`),
      'large.example': zoneFile('large.example', 'ns1.fresh.example', ''),
    });
    const routes = Object.entries(AT).flatMap(([at, address]) =>
      (['udp', 'tcp'] as const).map((transport) => ({ address, port: 53, transport, toAddress: '127.0.0.1', toPort: ports[at as keyof typeof AT] })),
    );
    const hints = join(folder, 'hints');
    writeFileSync(hints, `. 3600 NS root.bench.test.\nroot.bench.test. 3600 A ${AT.root}\n`);
    app = await startApp({ WANDERON_ROOT_HINTS: hints, WANDERON_ROUTES: JSON.stringify(routes), WANDERON_QUESTIONS_PER_SECOND: '100000' });
    await move(app, ports.old);
  } finally {
    await app?.stop();
    for (const knot of knots) knot.kill('SIGKILL');
    rmSync(folder, { recursive: true, force: true });
  }
}

async function move({ api, pid }: BenchApp, oldPort: number): Promise<void> {
  const empty = { role: 'dns', nameservers: [], addresses: [], aliasTarget: null, requires: [], updateAddress: null, note: '' };
  const host = async (name: string, more: object): Promise<string> => (await api.call<{ id: string }>('POST', '/api/hosts', { name, ...empty, ...more })).id;
  await host('Old DNS', { nameservers: ['ns1.old.example.'], key: KEY });
  const newDnsHost = await host('New DNS', { nameservers: ['ns1.fresh.example.'], key: KEY });
  const newWebHost = await host('New web', { role: 'web', addresses: ['203.0.113.80'] });
  const reference = async (): Promise<number> => {
    const args = ['@127.0.0.1', '-p', String(oldPort), '-y', `${KEY.algorithm}:${KEY.name}:${KEY.secret}`, 'large.example', 'AXFR', '+noall', '+answer'];
    const times: number[] = [];
    for (let round = 0; round < REFERENCE_ROUNDS; round++) times.push((await measure('dig', args)).seconds);
    return times.sort((a, b) => a - b)[REFERENCE_ROUNDS >> 1]!;
  };
  const dig = await reference();
  const tell = (what: string, seconds: number, processor: number): void =>
    console.log(
      `${what}, ${SETS} sets: ${(seconds / dig).toFixed(1)} times dig's transfer of the zone (${seconds.toFixed(2)} s, of which ${processor.toFixed(2)} s are our processor's)`,
    );
  const timed = async <T>(what: string, work: () => Promise<T>): Promise<T> => {
    const [began, used] = [performance.now(), processorSeconds(pid)];
    const result = await work();
    tell(what, (performance.now() - began) / 1000, processorSeconds(pid) - used);
    return result;
  };
  console.log(`dig's transfer of the zone: ${dig.toFixed(2)} s`);
  const id = await timed('survey', async () => {
    const begun = await api.call<{ id: string }>('POST', '/api/moves', { domain: 'large.example', scope: 'whole' });
    await stepDone(api, begun.id, 'survey');
    return begun.id;
  });
  const leg = (await api.call<MoveView>('GET', `/api/moves/${id}`)).legs[0]!.id;
  await timed('comparing the ways', () => api.call('POST', `/api/legs/${leg}/front`, { given: null }));
  await timed('choosing the hosts', () => api.call('PUT', `/api/legs/${leg}/hosts`, { newDnsHost, newWebHost }));
  const first = await timed("the ledger's first rows", () => api.call<LedgerPage>('GET', `/api/legs/${leg}/ledger`));
  await timed('all of its other rows', async () => {
    for (let page = first; page.next !== null;) page = await api.call<LedgerPage>('GET', `/api/legs/${leg}/ledger?after=${page.next}`);
  });
  await timed('a ruling', () => api.call('PUT', `/api/legs/${leg}/rulings/${first.rulings[9]!.id}`, { ruling: 'drop' }));
  await timed('its undo', () => api.call('POST', `/api/legs/${leg}/undo`, {}));
  await timed('approving', () => api.call('POST', `/api/legs/${leg}/approve`, { lowerAt: null, plannedSwitch: null, lowerTo: 300 }));
  await timed('pushing', async () => {
    await api.call('POST', `/api/legs/${leg}/push`);
    await stepDone(api, id, 'push');
  });
  await timed('reading back', () => stepDone(api, id, 'served'));
  console.log(`memory of the server at most: ${peakMemory(pid).toFixed(0)} MiB`);
}

/** Waits until a step of the move is done; throws an Error where it stopped. */
async function stepDone(api: BenchApp['api'], id: string, step: string): Promise<void> {
  await until(
    `${step} is done`,
    async () => {
      const found = (await api.call<MoveView>('GET', `/api/moves/${id}`)).legs.at(-1)!.steps.find((one) => one.id === step);
      if (found?.state === 'stopped') throw new Error(`${step} stopped: ${found.text}`);
      return found?.state === 'done';
    },
    600,
  );
}

/** Seconds of processor time that a process has used, its threads included. */
function processorSeconds(pid: number): number {
  const fields = readFileSync(`/proc/${pid}/stat`, 'utf8')
    .replace(/^.*\) /, '')
    .split(' ');
  // utime and stime, in hundredths.
  return (Number(fields[11]) + Number(fields[12])) / 100;
}

/** The most resident memory that a process had, in MiB. */
function peakMemory(pid: number): number {
  return Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1]) / 1024;
}
