import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Name, checkZone, parseZoneFile, printZoneFile } from '@wanderon/core';
import records from '../../corpus/records.json';
import zones from '../../corpus/zones.json';

const BASE = '$TTL 60\n@ SOA ns1 h 1 2 3 4 5\n@ NS ns1\nns1 A 192.0.2.1\n';
const ORIGIN = Name.parse('zone.example.');

/**
 * Every form of every type and every rule of zone files, good and bad, held against the loader of a real server: both
 * load it or neither does, and what both load they print alike, white space and order aside.
 */
describe('a real server and we', () => {
  const folder = mkdtempSync(join(tmpdir(), 'wanderon-loader-'));
  afterAll(() => rmSync(folder, { recursive: true, force: true }));

  const lines = (text: string): string[] =>
    text
      .split('\n')
      .filter((line) => line !== '' && !line.startsWith(';'))
      .map((line) => line.replace(/\s+/g, ''))
      .sort();

  function theirs(octets: Buffer): string[] | 'refused' {
    const [file, out] = [join(folder, 'zone'), join(folder, 'out')];
    writeFileSync(file, octets);
    const options = { cwd: folder, timeout: 20_000 };
    const print = ['-i', 'local', '-k', 'warn', '-n', 'warn', '-m', 'warn', '-s', 'full', '-o', out, 'zone.example', file];
    if (spawnSync('named-compilezone', print, options).status === 0) return lines(readFileSync(out, 'latin1'));
    expect(spawnSync('named-checkzone', ['-i', 'local', 'zone.example', file], options).status).toBe(1);
    return 'refused';
  }

  function ours(octets: Buffer): string[] | 'refused' {
    const { loads, records } = checkZone(parseZoneFile(octets, ORIGIN), ORIGIN);
    return loads ? lines(printZoneFile(records)) : 'refused';
  }

  /** What differs, so that one run shows all of it. */
  const differing = (files: readonly string[]): unknown[] =>
    files
      .map((file) => ({ file, octets: Buffer.from(file) }))
      .map(({ file, octets }) => ({ file, theirs: theirs(octets), ours: ours(octets) }))
      .filter((one) => JSON.stringify(one.theirs) !== JSON.stringify(one.ours));

  it.each(Object.entries(records))('agree on %s', (type, forms) => expect(differing(forms.map((form) => `${BASE}a ${type} ${form}\n`))).toEqual([]));

  it('agree on entries', () => expect(differing(zones.entries.map((entry) => `${BASE}${entry}\n`))).toEqual([]));

  it('agree on whole files', () => expect(differing(zones.files)).toEqual([]));
});
