import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { Name } from '../dns/name';
import { parseZoneFile } from '../dns/zoneFile';
import { FOOTERS, GREETINGS, LANGUAGES } from '../testing/texts/words';
import { Random } from '../testing/texts/random';
import { TextRecord, domain, zoneRecords } from '../testing/texts/zone';
import { shownRecord } from './fileLines';
import { readText } from './readText';

/** Files of each kind; READ_TEXTS=2000 reads as many. */
const COUNT = Number(process.env.READ_TEXTS ?? 300);

/** What a server loads, as finds are written: of the zone, without what is outside of it. */
function loaded(file: string, zone: string): string[] {
  const apex = Name.parse(`${zone}.`);
  const { records, findings } = parseZoneFile(file, apex);
  expect(findings.filter(({ severity }) => severity === 'error')).toEqual([]);
  const inside = records.filter(({ owner }) => owner.isAtOrBelow(apex)).map((record) => ({ ...shownRecord(record, apex), ttl: record.ttl }));
  return [...new Set(inside.map(lineOf))].sort();
}

const lineOf = ({ owner, type, data, ttl }: { owner: string; type: string; data: string; ttl: number | undefined }): string =>
  `${owner.toLowerCase()} ${ttl} ${type} ${type === 'TXT' ? data : data.toLowerCase()}`;

function surelyRead(text: string, zone: string): string[] {
  const { finds } = readText(text, { zone: `${zone}.`, as: 'old', own: [] });
  return finds
    .filter(({ kind, trust }) => kind === 'record' && trust === 'sure')
    .map(lineOf)
    .sort();
}

/** A file with the habits that files have: names left out, brackets over lines, comments, several strings, names without their dot. */
function masterFile(random: Random, zone: string, records: readonly TextRecord[]): string {
  const lines = [random.chance(0.5) ? `$ORIGIN ${zone}.` : '', random.chance(0.7) ? `$TTL ${random.pick(['1h', '86400', '1d12h'])}` : '$TTL 300'].filter(
    Boolean,
  );
  lines.push(
    random.chance(0.5) ? '@ IN SOA ns1 host ( 7 ; serial\n  2h 1h\n 2w 300 ) ; end' : `${zone}. 3600 IN SOA ns1.${zone}. host.${zone}. 7 7200 3600 1209600 300`,
  );
  let before = '';
  for (const { owner, type, ttl, data } of records) {
    const name = random.chance(0.2) && before === owner ? '' : random.chance(0.3) ? (owner === '@' ? `${zone}.` : `${owner}.${zone}.`) : owner;
    before = owner;
    const value =
      type === 'TXT' && random.chance(0.4)
        ? `( ${data.slice(0, 12)}"\n      "${data.slice(12)} )`
        : type === 'CNAME' && random.chance(0.2)
          ? 'relative.name'
          : data;
    const middle = random
      .shuffled([random.chance(0.5) ? String(ttl) : '', random.chance(0.5) ? 'IN' : ''])
      .filter(Boolean)
      .join(' ');
    lines.push(
      `${name.padEnd(random.below(30))} ${middle}${middle && ' '}${random.chance(0.2) ? type.toLowerCase() : type}\t${value}${random.chance(0.2) ? ' ; note; more "text"' : ''}`,
    );
    if (random.chance(0.1)) lines.push('', '; a remark');
  }
  return `${lines.join('\n')}\n`;
}

it('a file that a server loads reads to the same records, whatever stands around it', () => {
  for (let seed = 1; seed <= COUNT; seed++) {
    const random = new Random(seed + 31_000);
    const zone = domain(random);
    const file = masterFile(random, zone, zoneRecords(random));
    const language = random.pick(LANGUAGES);
    const around = random.pick([
      (text: string) => text,
      (text: string) => `${random.pick(GREETINGS[language])}\n\n${text}\n${random.pick(FOOTERS[language])}\n`,
      (text: string) => `Zone\n\n\`\`\`\n${text}\`\`\`\n`,
      (text: string) =>
        text
          .split('\n')
          .map((line) => `> ${line}`)
          .join('\n'),
      (text: string) => `\ufeff${text.replaceAll('\n', '\r\n')}`,
    ]);
    expect([seed, surelyRead(around(file), zone)]).toEqual([seed, loaded(file, zone)]);
  }
});

it('the files that real servers are asked about read the same', () => {
  const corpus = join(__dirname, '../../../../e2e/corpus');
  const files = readdirSync(corpus).filter((name) => name.endsWith('.zone'));
  expect(files.length).toBeGreaterThan(0);
  for (const name of files) {
    const file = readFileSync(join(corpus, name), 'utf8');
    if (/\$INCLUDE/i.test(file)) continue;
    const { findings } = parseZoneFile(file, Name.parse('zone.example.'));
    if (findings.some(({ severity }) => severity === 'error')) continue;
    const all = readText(file, { zone: 'zone.example.', as: 'old', own: [] }).finds.filter(({ kind, trust }) => kind === 'record' && trust !== 'out');
    expect([name, all.map(lineOf).sort()]).toEqual([name, loaded(file, 'zone.example')]);
  }
});
