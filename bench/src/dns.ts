import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Name, decodeMessage, encodeMessage, parseRdata, query, reply, typeCode } from '@wanderon/core';
import * as reference from 'dns-packet';
import { startKnot } from './support/knot';
import { measure, spread } from './support/measure';
import { writeLines } from './support/writeLines';

const COUNT = 1_000_000;
const PORT = 5399;
const ROOT = join(__dirname, '../..');

/** Mixed records of a made-up zone: addresses, aliases, mail, texts, services, delegations with keys. */
function* mixedZone(count: number): Generator<string, void> {
  yield '$TTL 3600\n@ SOA ns1 host 1 7200 900 1209600 1800\n@ NS ns1\n@ NS ns2\nns1 A 192.0.2.1\nns2 A 192.0.2.2\n';
  const kinds: ((h: string, i: number) => string[])[] = [
    (h, i) => [`${h} A 192.0.${(i >> 8) & 255}.${i & 255}`, `${h} AAAA 2001:db8::${(i & 0xffff).toString(16)}:1`],
    (h, i) => [`${h} 300 IN A 198.51.100.${i & 255}`],
    (h, i) => [`${h} CNAME host-${i - 2}`],
    (h, i) => [`${h} MX 10 mail-${i}.other.example.`, `${h} TXT "v=spf1 include:_spf.other.example ip4:192.0.2.${i & 255} -all"`],
    (h, i) => [`_sip._tcp.${h} SRV 10 5 5060 host-${i - 5}`],
    (h, i) => [`${h} TXT "verification=${i.toString(36)}abcdefghijklmnop"`],
    (h, i) => [`${h} CAA 0 issue "certs.example"`, `${h} A 203.0.113.${i & 255}`],
    (h, i) => [`${h} NS ns1.other.example.`, `${h} NS ns2.other.example.`, `${h} DS ${i & 0xffff} 13 2 ${'0123456789ABCDEF'.repeat(4)}`],
  ];
  let written = 5;
  for (let i = 0; written < count; i++) {
    const lines = kinds[i % kinds.length]!(`host-${i}`, i);
    written += lines.length;
    yield `${lines.join('\n')}\n`;
  }
}

async function zoneFiles(folder: string): Promise<void> {
  const file = join(folder, 'mixed.zone');
  await writeLines(file, mixedZone(COUNT));
  const ratios: number[] = [];
  let last = '';
  for (let round = 0; round < 3; round++) {
    const ours = await measure(process.execPath, [
      '--max-semi-space-size=64',
      join(ROOT, 'command/dist/main.js'),
      'zone',
      'print',
      file,
      '--origin',
      'zone.example',
    ]);
    const theirs = await measure('named-compilezone', ['-i', 'none', '-s', 'full', '-o', '/dev/null', 'zone.example', file]);
    ratios.push(ours.seconds / theirs.seconds);
    last = `ours ${ours.seconds.toFixed(1)} s and ${ours.peak.toFixed(0)} MiB, theirs ${theirs.seconds.toFixed(1)} s and ${theirs.peak.toFixed(0)} MiB in the last`;
  }
  console.log(`zone file of ${COUNT} mixed records, read, checked and printed: ${spread(ratios)} times the time of named-compilezone; ${last}`);
}

const record = (owner: string, type: string, data: string) => ({
  owner: Name.parse(owner),
  type: typeCode(type)!,
  cls: 1,
  ttl: 3600,
  data: parseRdata(typeCode(type)!, data),
});

/** Everyday answers: an alias with addresses, mail, a referral, a text, a denial, a service. */
function everyday(): Uint8Array[] {
  const asked = (name: string, type: string) => query(Name.parse(name), typeCode(type)!, { id: 4711 });
  return [
    reply(asked('www.lighthouse-museum.example.', 'A'), {
      answers: [
        record('www.lighthouse-museum.example.', 'CNAME', 'edge.thornwick.example.'),
        record('edge.thornwick.example.', 'A', '203.0.113.80'),
        record('edge.thornwick.example.', 'A', '203.0.113.81'),
      ],
    }),
    reply(asked('lighthouse-museum.example.', 'MX'), {
      answers: [
        record('lighthouse-museum.example.', 'MX', '10 mx1.brinepost.example.'),
        record('lighthouse-museum.example.', 'MX', '20 mx2.brinepost.example.'),
      ],
      additionals: [record('mx1.brinepost.example.', 'A', '198.51.100.25'), record('mx1.brinepost.example.', 'AAAA', '2001:db8::25')],
    }),
    reply(asked('lighthouse-museum.example.', 'A'), {
      authorities: [record('lighthouse-museum.example.', 'NS', 'ns1.quillmere.example.'), record('lighthouse-museum.example.', 'NS', 'ns2.quillmere.example.')],
      additionals: [record('ns1.quillmere.example.', 'A', '203.0.113.51'), record('ns2.quillmere.example.', 'A', '203.0.113.52')],
    }),
    reply(asked('lighthouse-museum.example.', 'TXT'), {
      answers: [record('lighthouse-museum.example.', 'TXT', '"v=spf1 include:spf.brinepost.example -all"')],
    }),
    reply(asked('absent.lighthouse-museum.example.', 'A'), {
      rcode: 3,
      authorities: [record('lighthouse-museum.example.', 'SOA', 'ns1.quillmere.example. host.quillmere.example. 7 7200 900 1209600 300')],
    }),
    reply(asked('_sip._tcp.lighthouse-museum.example.', 'SRV'), {
      answers: [record('_sip._tcp.lighthouse-museum.example.', 'SRV', '10 5 5060 voice.lighthouse-museum.example.')],
    }),
  ].map(encodeMessage);
}

function messages(): void {
  const wires = everyday();
  const buffers = wires.map((wire) => Buffer.from(wire));
  const ours = wires.map(decodeMessage);
  const theirs = buffers.map((buffer) => reference.decode(buffer));
  const perRound = 30_000;
  const seconds = (work: (i: number) => void): number => {
    const began = performance.now();
    for (let i = 0; i < perRound; i++) work(i % wires.length);
    return performance.now() - began;
  };
  const compare = (title: string, mine: (i: number) => void, other: (i: number) => void): void => {
    for (const work of [mine, other]) seconds(work);
    const ratios = Array.from({ length: 9 }, () => seconds(other) / seconds(mine));
    console.log(`message ${title}: ${spread(ratios)} times as fast as dns-packet, ${wires.length} everyday answers`);
  };
  compare(
    'decode',
    (i) => void decodeMessage(wires[i]!),
    (i) => void reference.decode(buffers[i]!),
  );
  compare(
    'encode',
    (i) => void encodeMessage(ours[i]!),
    (i) => void reference.encode(theirs[i]!),
  );
}

/** A zone of a million addresses. */
function* addresses(): Generator<string, void> {
  yield '$TTL 60\n@ SOA ns1.other.example. h.other.example. 1 1 1 1 1\n@ NS ns1.other.example.\n';
  for (let i = 1; i <= COUNT - 2; i++) yield `n${i} A 192.0.${(i >> 8) & 255}.${i & 255}\n`;
}

async function overTheWire(folder: string): Promise<void> {
  const file = join(folder, 'many.zone');
  await writeLines(file, addresses());
  const server = await startKnot(folder, PORT, [{ domain: 'many.example', file, transfer: true, sign: false }]);
  try {
    const questions = 100_000;
    const data = join(folder, 'questions');
    writeFileSync(data, Array.from({ length: questions }, (_, i) => `n${(i % 1000) + 1}.many.example. A\n`).join(''));
    const ratios: number[] = [];
    let last = '';
    for (let round = 0; round < 3; round++) {
      const ours = Number((await measure(process.execPath, [join(__dirname, 'children/ask.js'), String(PORT), String(questions), '200'], true)).out);
      const { out } = await measure('dnsperf', ['-s', '127.0.0.1', '-p', String(PORT), '-d', data, '-n', '1', '-q', '200'], true);
      const theirs = Number(/Queries per second:\s+([\d.]+)/.exec(out)?.[1]);
      ratios.push(ours / theirs);
      last = `ours ${ours.toFixed(0)} a second, theirs ${theirs.toFixed(0)} in the last`;
    }
    console.log(`${questions} questions over UDP to one knot: ${spread(ratios)} times as many a second as dnsperf; ${last}`);
    for (const how of ['pass', 'hold'] as const) {
      const times: number[] = [];
      for (let round = 0; round < 2; round++) {
        const ours = await measure(process.execPath, ['--max-semi-space-size=64', join(__dirname, 'children/transfer.js'), String(PORT), how], true);
        if (ours.out.trim() !== String(COUNT)) throw new Error(`${ours.out.trim()} records came instead of ${COUNT}`);
        const theirs = await measure('dig', ['@127.0.0.1', '-p', String(PORT), 'many.example', 'AXFR', '+noall', '+answer']);
        times.push(ours.seconds / theirs.seconds);
        last = `ours ${ours.seconds.toFixed(1)} s and ${ours.peak.toFixed(0)} MiB, theirs ${theirs.seconds.toFixed(1)} s and ${theirs.peak.toFixed(0)} MiB in the last`;
      }
      console.log(
        `transfer of ${COUNT} records, ${how === 'pass' ? 'passed on as they come' : 'held in memory'}: ${spread(times)} times the time of dig; ${last}`,
      );
    }
  } finally {
    server.kill('SIGKILL');
  }
}

async function main(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'wanderon-bench-'));
  try {
    messages();
    await zoneFiles(folder);
    await overTheWire(folder);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

void main();
