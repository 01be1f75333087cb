import { oddText } from '../testing/texts/oddTexts';
import { oldText } from '../testing/texts/oldTexts';
import { newText } from '../testing/texts/newTexts';
import { scoreOf } from '../testing/texts/score';
import { wrapped } from '../testing/texts/wrapped';
import { TextReading } from './find';
import { readText } from './readText';

/** Texts of each kind; READ_TEXTS=5000 reads as many. The first 240 of each are those that are never left out. */
const COUNT = Number(process.env.READ_TEXTS ?? 240);
const seeds = Array.from({ length: COUNT }, (_, index) => index + 1);
const read = (text: string, zone: string, as: 'old' | 'new'): TextReading => readText(text, { zone: `${zone}.`, as, own: [] });
/** Of a thousand texts at least so many give all their records, sure or as a question. */
const RIGHT = 950;

describe('generated texts of which the truth is known', () => {
  it.each([
    ['tables, fields, files, answers of queries, JSON and YAML', oldText],
    ['stranger forms', oddText],
  ])('%s: none gives a value that is wrong and sure, and nearly all give every record', (_what, make) => {
    let right = 0;
    for (const seed of seeds) {
      const made = make(seed);
      const score = scoreOf(read(made.text, made.zone, 'old'), made);
      expect([seed, made.about, score.wrongSure]).toEqual([seed, made.about, []]);
      right += Number(score.isRight);
    }
    expect((right / COUNT) * 1000).toBeGreaterThanOrEqual(RIGHT);
  });

  it('what a new host gives, in six languages: records, nameservers and addresses, none of them wrong and sure', () => {
    let right = 0;
    for (const seed of seeds) {
      const made = newText(seed);
      const reading = read(made.text, made.zone, 'new');
      const score = scoreOf(reading, made);
      const of = (kind: string): string[] => reading.finds.filter((find) => find.kind === kind && find.trust !== 'out').map(({ data }) => data);
      const surely = reading.finds.filter(({ trust }) => trust === 'sure');
      const strangers = surely.filter(
        ({ kind, data }) => (kind === 'nameserver' && !made.servers.includes(data.slice(0, -1))) || (kind === 'address' && !made.addresses.includes(data)),
      );
      expect([seed, made.about, score.wrongSure, strangers]).toEqual([seed, made.about, [], []]);
      const isWhole = made.servers.every((one) => of('nameserver').includes(`${one}.`)) && made.addresses.every((one) => of('address').includes(one));
      right += Number(score.isRight && isWhole);
    }
    expect((right / COUNT) * 1000).toBeGreaterThanOrEqual(RIGHT);
  });

  it('lines broken in the middle, as mails break them: what is torn is asked about and never taken', () => {
    for (const seed of seeds) {
      const made = oldText(seed);
      // In the source of a page an end of line is a blank.
      if (made.about.startsWith('html')) continue;
      const score = scoreOf(read(wrapped(made.text, seed), made.zone, 'old'), made);
      expect([seed, made.about, score.wrongSure]).toEqual([seed, made.about, []]);
    }
  });
});
