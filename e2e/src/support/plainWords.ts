import { MoveView } from '@wanderon/contract';

/**
 * What no page shows: words that are for the code, a formula, an id, what is missing in the program, seconds by the hundred. A letter
 * behind a point is the last factor of a formula; before a word (`c keep`) it is a key.
 */
const CODE_WORDS =
  /\b(?:lookouts?|horizons?|gates?|ledger|rulings?|repoint\w*|carried|authorit(?:y|ies)|apex|waived?|verdicts?|undefined|NaN|settled|unsound)\b|\beff\(|\b\d{3,} s\b|\b[0-9a-f]{8}-[0-9a-f]{4}-| · [a-zA-Z](?! [a-z])\b/gi;

/** Names of domains, which a test may call after what they are about. */
const NAMES = /[\w-]+(?:\.[\w-]+)*\.(?:example|test)\b/g;

/** Those that a text shows, each with what stands around it. */
export function codeWordsIn(shown: string): string[] {
  const text = shown.replace(NAMES, '…');
  return [...text.matchAll(CODE_WORDS)].map(({ index }) => text.slice(Math.max(0, index - 40), index + 40).replace(/\s+/g, ' '));
}

/** The same of what a move says of its steps and checks, and of what can be done there, in whatever state it is. */
export function codeWordsOf({ legs }: MoveView): string[] {
  const ways = (all: readonly { readonly label: string; readonly means: string }[]): string[] => all.flatMap(({ label, means }) => [label, means]);
  const texts = legs.flatMap(({ steps, gate }) => [
    ...steps.flatMap((step) => [step.title, step.text ?? '', ...ways(step.ways)]),
    ...gate.lines.flatMap((line) => [line.text, line.evidence ?? '', ...line.about, ...ways(line.ways)]),
  ]);
  return [...new Set(texts)].flatMap(codeWordsIn);
}
