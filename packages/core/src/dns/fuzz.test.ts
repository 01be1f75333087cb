import { dataOf, layoutTypes } from '../testing/arbitrary';
import fc from 'fast-check';
import { WireError, utf8 } from './bytes';
import { decodeMessage, encodeMessage, query, reply } from './message';
import { Name } from './name';
import { printRdata } from './rdata';
import { ResourceRecord } from './record';
import { typeCode } from './typeNames';
import { gatherZone, ZoneReader, parseZoneFile, printZoneFile } from './zoneFile';
import { checkZone } from './zoneRules';

/** How many mutants; FUZZ=50 runs a million messages and a hundred thousand zone files. */
const TIMES = Number((globalThis as { process?: { env: Record<string, string | undefined> } }).process?.env['FUZZ'] ?? 1);
const MESSAGES = 20_000 * TIMES;
const FILES = 2_000 * TIMES;
const zone = Name.parse('zone.example.');

/** Numbers from a seed, the same on every run (xorshift). */
function numbers(seed: number): (below: number) => number {
  let state = seed;
  return (below) => {
    state ^= state << 13;
    state ^= state >>> 17;
    state ^= state << 5;
    return (state >>> 0) % below;
  };
}

const samples = fc.sample(
  fc.constantFrom(...layoutTypes).chain((type) => dataOf(type).map((data) => ({ type: typeCode(type)!, data }))),
  { numRuns: 300, seed: 11 },
);
const records = samples.map(({ type, data }, i): ResourceRecord => ({ owner: Name.parse(`n${i % 40}`, zone), type, cls: 1, ttl: 60, data }));

describe('whatever comes', () => {
  it(`${MESSAGES} mutated messages are read or refused with a WireError, and what is read can be written and printed`, () => {
    const random = numbers(4711);
    const wires = Array.from({ length: 60 }, (_, i) =>
      encodeMessage(
        reply(query(Name.parse(`www.n${i}`, zone), 1), {
          answers: records.slice(i * 4, i * 4 + 3),
          authorities: records.slice(i * 2, i * 2 + 1),
          additionals: records.slice(i, i + 1),
        }),
      ),
    );
    let read = 0;
    for (let i = 0; i < MESSAGES; i++) {
      let mutant: Uint8Array = wires[random(wires.length)]!.slice();
      for (let left = 1 + random(6); left > 0; left--) {
        const at = random(mutant.length);
        switch (random(5)) {
          case 0:
            mutant[at] = random(256);
            break;
          case 1: // A pointer to anywhere.
            mutant[at] = 0xc0 | random(2);
            break;
          case 2: // A length or count.
            mutant[at] = [0, 1, 63, 64, 255][random(5)]!;
            break;
          case 3:
            mutant = mutant.slice(0, Math.max(1, at));
            break;
          default:
            mutant = Uint8Array.from([...mutant.subarray(0, at), ...mutant.subarray(random(at + 1))]).slice(0, 4096);
        }
      }
      try {
        const message = decodeMessage(mutant);
        read += 1;
        encodeMessage(message);
        for (const record of [...message.answers, ...message.authorities, ...message.additionals]) printRdata(record.type, record.data);
      } catch (error) {
        if (!(error instanceof WireError)) throw error;
      }
    }
    expect(read).toBeGreaterThan(MESSAGES / 100);
  });

  it(`${FILES} mutated zone files are read, checked and printed, in one piece or many`, () => {
    const random = numbers(1234);
    const bits = [
      '(',
      ')',
      '"',
      ';',
      '\\',
      '\n',
      '\r',
      '\t',
      ' ',
      '@',
      '$',
      '$TTL',
      '$ORIGIN',
      '$GENERATE 1-3 a$',
      '\\000',
      '\\999',
      '.',
      '..',
      '\0',
      'é',
      '\ufeff',
      '\\#',
      '99999999999',
    ];
    const text = `$TTL 60\n@ SOA ns1 h ( 1 2 3\n 4 5 )\n@ NS ns1\n$GENERATE 1-3 g$ A 192.0.2.$\n${printZoneFile(records)}`;
    const lines = text.split('\n');
    let found = 0;
    for (let i = 0; i < FILES; i++) {
      const from = random(lines.length);
      let mutant = [...lines.slice(0, 5), ...lines.slice(from, from + 12)].join('\n');
      for (let left = 1 + random(5); left > 0; left--) {
        const at = random(mutant.length);
        mutant =
          random(3) === 0 ? mutant.slice(0, at) + mutant.slice(at + 1 + random(20)) : mutant.slice(0, at) + bits[random(bits.length)]! + mutant.slice(at);
      }
      const octets = utf8(mutant);
      const file = parseZoneFile(octets, zone);
      found += file.findings.length;
      printZoneFile(checkZone(file, zone).records);
      const gathered = gatherZone();
      const reader = new ZoneReader(zone, gathered);
      const size = 1 + random(200);
      for (let at = 0; at < octets.length; at += size) reader.write(octets.subarray(at, at + size));
      reader.end();
      expect([gathered.file.records.length, gathered.file.findings.length]).toEqual([file.records.length, file.findings.length]);
    }
    expect(found).toBeGreaterThan(FILES / 2);
  });
});
