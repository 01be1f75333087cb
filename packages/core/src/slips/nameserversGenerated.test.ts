import { TypedSet, typedSet } from '../testing/slips/nameserverSlips';
import { typedServers } from '../reading/typedServers';
import { readNameserverSet } from './nameserverSet';

/** `READ_SLIPS=20000` tries as many as a change of a rule is tried with. */
const SETS = Number(process.env['READ_SLIPS'] ?? 1000);

interface Score {
  wanted: number;
  named: number;
  readonly missed: Map<string, string[]>;
  readonly claimed: string[];
}

/** Kinds that do not say for which of several names something was typed. */
const FREE = /^(?:website|own domain|another set|copied|number|cut)/;

const add = (score: Score, kind: string, text: string): void => void score.missed.set(kind, [...(score.missed.get(kind) ?? []), text]);

/** What was told of a generated set, against what was done. */
function judge(set: TypedSet, score: Score, fields: readonly string[]): void {
  const { asPlanned, slips } = readNameserverSet(set, fields);
  const told = `${fields.join(' | ')} for ${set.wanted.join(' ')} → ${slips.map(({ text }) => text).join(' / ')}`;
  const places = set.truth.map(({ wanted }) => wanted);
  // Each name with another number is what another set of the host looks like.
  const isWholeSet = set.truth.length === set.wanted.length && set.truth.every(({ kind }) => kind === 'number');
  for (const { kind, codes, wanted, typed } of set.truth) {
    score.wanted++;
    const found = slips.find(
      (slip) =>
        (codes.includes(slip.code) || (isWholeSet && slip.code === 'other set')) &&
        (wanted === null
          ? slip.typed?.toLowerCase().replace(/\.$/, '') === typed
          : (slip.wanted?.toLowerCase() === wanted || (FREE.test(kind) && places.includes(slip.wanted))) && slip.text.includes(slip.wanted!)),
    );
    if (found) score.named++;
    else add(score, kind, told);
  }
  const clean = set.truth.length === 0 && set.strangers.length === 0;
  if (asPlanned !== clean && !(asPlanned && set.truth.every(({ kind }) => kind.endsWith('as a URL')))) score.claimed.push(`called right or wrong: ${told}`);
  if (clean && slips.length > 0) score.claimed.push(`a slip where none is: ${told}`);
  for (const stranger of set.strangers)
    if (slips.some(({ code, typed }) => typed?.toLowerCase().replace(/\.$/, '') === stranger && code !== 'stranger'))
      score.claimed.push(`nothing explains it: ${told}`);
}

describe('nameserver sets of every kind of slip, one, two or none', () => {
  const score: Score = { wanted: 0, named: 0, missed: new Map(), claimed: [] };
  for (let seed = 1; seed <= SETS; seed++) {
    const set = typedSet(seed);
    judge(set, score, set.fields);
    // The same through a form that is pasted back.
    const pasted = typedServers(set.fields.map((field, index) => `Nameserver ${index + 1}: ${field}`).join('\n'));
    judge(set, score, pasted);
  }
  const shown = [...score.missed]
    .map(
      ([kind, list]) =>
        `${kind}: ${list.length}\n  ${list
          .slice(0, Number(process.env['SHOW'] ?? 2))
          .map((line) => line.slice(0, 400))
          .join('\n  ')}`,
    )
    .join('\n');
  if (process.env['SHOW']) console.log(`${score.named} of ${score.wanted}\n${shown}\n${score.claimed.length}\n${score.claimed.slice(0, 20).join('\n')}`);

  it('are named truly, at least 95 of 100', () => {
    expect(score.wanted).toBeGreaterThan(SETS);
    expect(score.named / score.wanted > 0.95 ? '' : shown).toBe('');
  });
  it('are never named where none explains it, and none is called right that is not', () => expect(score.claimed.slice(0, 5)).toEqual([]));
});
