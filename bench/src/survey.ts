import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { CATALOGUE_NAMES } from '@wanderon/core';
import { startKnot } from './support/knot';
import { Measured, measure, median, spread } from './support/measure';

const PORT = 5398;
const ROUNDS = 3;
const HEAD = '$TTL 300\n@ SOA ns1.other.example. h.other.example. 1 7200 900 1209600 300\n@ NS ns1.other.example.\n';

interface Came {
  readonly sets: number;
  readonly names: number;
  readonly asked: number;
  readonly whole: boolean;
  readonly seconds: number;
  readonly questions: readonly string[];
}

/** Zones as clients have them, large and small: names of the catalogue, a few that only they have, a wildcard in every third. */
function clientZone(seed: number, size: number): string {
  const picked = CATALOGUE_NAMES.filter((_, index) => (index * 7 + seed * 13) % Math.round(CATALOGUE_NAMES.length / size) === 0);
  const data = ['A 192.0.2.1', 'CNAME www.other.example.', 'TXT "some text"', 'MX 10 mail'];
  const own = picked.map((name, index) => `${name} ${name.startsWith('_') ? 'TXT "v=1"' : data[(index + seed) % data.length]}`);
  return `${HEAD}@ A 192.0.2.80\n@ MX 10 mail\nmail A 192.0.2.25\n${own.filter((line) => !/^(mail|@) /.test(line)).join('\n')}\n${seed % 3 === 0 ? '* A 192.0.2.9\n' : ''}`;
}

const survey = async (domain: string, means: 'questions' | 'walk'): Promise<Came & Measured> => {
  const ran = await measure(process.execPath, [join(__dirname, 'children/survey.js'), String(PORT), domain, means], true);
  return { ...ran, ...(JSON.parse(ran.out) as Came) };
};

async function main(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'wanderon-bench-'));
  const file = (name: string, text: string): string => {
    const path = join(folder, name);
    writeFileSync(path, text);
    return path;
  };
  const sizes = [10, 30, 100];
  const zones = sizes.map((size, seed) => ({
    domain: `size-${size}.example`,
    file: file(`size-${size}.zone`, clientZone(seed, size)),
    transfer: false,
    sign: false,
  }));
  const many = `${HEAD}${Array.from({ length: 5000 }, (_, i) => `name-${i} A 192.0.2.${i % 250}\n`).join('')}`;
  zones.push({ domain: 'walked.example', file: file('walked.zone', many), transfer: true, sign: true });
  const server = await startKnot(folder, PORT, zones);
  try {
    for (const { domain } of zones.slice(0, sizes.length)) {
      const ratios: number[] = [];
      let last: (Came & Measured) | undefined;
      for (let round = 0; round < ROUNDS; round++) {
        last = await survey(domain, 'questions');
        // The same questions, as many at a time.
        const { out } = await measure(
          'dnsperf',
          ['-s', '127.0.0.1', '-p', String(PORT), '-d', file('questions', `${last.questions.join('\n')}\n`), '-n', '5', '-q', '16'],
          true,
        );
        ratios.push(last.asked / last.seconds / Number(/Queries per second:\s+([\d.]+)/.exec(out)?.[1]));
      }
      const { asked, sets, seconds, peak } = last!;
      console.log(
        `survey by questions of ${domain}: ${asked} asked, ${sets} record sets found, ${(asked / sets).toFixed(1)} questions a set, ${(asked / seconds).toFixed(0)} a second, ${spread(ratios)} times dnsperf with the same questions, ${peak.toFixed(0)} MiB`,
      );
    }
    const times: number[] = [];
    const walks: (Came & Measured)[] = [];
    for (let round = 0; round < ROUNDS; round++) {
      const walk = await survey('walked.example', 'walk');
      if (!walk.whole) throw new Error('the walk is not whole');
      const theirs = await measure('dig', ['@127.0.0.1', '-p', String(PORT), 'walked.example', 'AXFR', '+noall', '+answer']);
      times.push(walk.seconds / theirs.seconds);
      walks.push(walk);
    }
    const walk = walks.at(-1)!;
    console.log(
      `walk of ${walk.names} signed names: ${walk.asked} questions, ${(walk.asked / walk.seconds).toFixed(0)} a second, ${median(walks.map((one) => one.seconds)).toFixed(1)} s, ${spread(times)} times dig's transfer of the same zone, ${walk.peak.toFixed(0)} MiB`,
    );
  } finally {
    server.kill('SIGKILL');
    rmSync(folder, { recursive: true, force: true });
  }
}

void main();
