import { newText } from '../testing/texts/newTexts';
import { oddText } from '../testing/texts/oddTexts';
import { oldText } from '../testing/texts/oldTexts';
import { Random } from '../testing/texts/random';
import { readText } from './readText';
import { takenNames, takenSets } from './taken';
import { typedServers } from './typedServers';
import { Name } from '../dns/name';

/** Texts that are damaged and read; READ_MUTATIONS=1000000 reads as many. */
const COUNT = Number(process.env.READ_MUTATIONS ?? 400);
/** What a damaged text may gain anywhere. */
const PIECES = [
  '\\',
  '"',
  '(',
  ')',
  '\n',
  '\t',
  ' ',
  '.',
  '..',
  '@',
  '*',
  ':',
  '|',
  ';',
  ',',
  '<',
  '</',
  '<td>',
  '{',
  '}',
  '[',
  '\0',
  '\u200b',
  'é',
  '\ud800',
  '…',
  '\\300',
  '\\#',
  '$INCLUDE x\n',
  '_',
  '-',
  '=',
  '0',
  'A',
  ' IN ',
];

function damaged(text: string, random: Random): string {
  let result = text;
  for (let times = 1 + random.below(6); times > 0; times--) {
    const at = random.below(result.length + 1);
    const length = random.pick([0, 1, 1, 3, 20]);
    const piece = random.chance(0.5) ? random.pick(PIECES) : result.slice(random.below(result.length + 1)).slice(0, random.below(40));
    result = result.slice(0, at) + piece + result.slice(at + length);
  }
  return result;
}

it('a text that was damaged anywhere is read to its end, and what was taken of it can be used', () => {
  const zoneless = { zone: undefined, as: 'new', own: ['kelp.example'] } as const;
  for (let seed = 1; seed <= COUNT; seed++) {
    const random = new Random(seed + 55_000);
    const made = random.pick([oldText, oddText, newText])(1 + random.below(5000));
    const text = damaged(made.text, random);
    const zone = Name.parse(`${made.zone}.`);
    try {
      const { finds } = readText(text, { zone: zone.toString(), as: made.as, own: [] });
      takenSets(finds, zone, 60);
      takenNames(finds, zone);
      readText(text, zoneless);
      typedServers(text);
    } catch (error) {
      throw new Error(`seed ${seed}: ${(error as Error).message}\n${text.slice(0, 500)}`, { cause: error });
    }
  }
});
