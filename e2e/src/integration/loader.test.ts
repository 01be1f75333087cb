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

  const [file, out] = [join(folder, 'zone'), join(folder, 'out')];
  const options = { cwd: folder, timeout: 20_000 };

  function theirs(text: string): string[] | 'refused' {
    writeFileSync(file, text);
    const print = ['-i', 'local', '-k', 'warn', '-n', 'warn', '-m', 'warn', '-s', 'full', '-o', out, 'zone.example', file];
    return spawnSync('named-compilezone', print, options).status === 0 ? lines(readFileSync(out, 'latin1')) : 'refused';
  }

  /** It reads the file and says no; not that it could not run. */
  function isRefused(text: string): boolean {
    writeFileSync(file, text);
    return spawnSync('named-checkzone', ['-i', 'local', 'zone.example', file], options).status === 1;
  }

  function ours(text: string): string[] | 'refused' {
    const { loads, records } = checkZone(parseZoneFile(Buffer.from(text), ORIGIN), ORIGIN);
    return loads ? lines(printZoneFile(records)) : 'refused';
  }

  /** What differs, so that one run shows all of it. */
  const differing = (files: readonly string[]): unknown[] =>
    files.flatMap((text): unknown[] => {
      const own = ours(text);
      if (own === 'refused') return isRefused(text) ? [] : [{ text, theirs: theirs(text), ours: own }];
      const printed = theirs(text);
      return JSON.stringify(printed) === JSON.stringify(own) ? [] : [{ text, theirs: printed, ours: own }];
    });

  /** Those that we load stand in one file, each at a name of its own; one by one only where that file shows a difference. */
  const differingForms = (type: string, forms: readonly string[]): unknown[] => {
    const alone = (form: string): string => `${BASE}a ${type} ${form}\n`;
    const good = forms.filter((form) => ours(alone(form)) !== 'refused');
    const together = BASE + good.map((form, index) => `a${index} ${type} ${form}\n`).join('');
    const loaded = ours(together);
    const agree = loaded !== 'refused' && JSON.stringify(theirs(together)) === JSON.stringify(loaded);
    return differing(forms.filter((form) => !agree || !good.includes(form)).map(alone));
  };

  it.each(Object.entries(records))('agree on %s', (type, forms) => expect(differingForms(type, forms)).toEqual([]));

  it('agree on entries', () => expect(differing(zones.entries.map((entry) => `${BASE}${entry}\n`))).toEqual([]));

  it('agree on whole files', () => expect(differing(zones.files)).toEqual([]));
});
