/** A piece of a value: kept, or changed against the other side. */
export interface Piece {
  readonly text: string;
  readonly changed: boolean;
}

/**
 * Marks what differs between two values: the common beginning and end are kept.
 *
 *     compareText('192.0.2.10', '192.0.2.25')[1]  // '192.0.2.' kept, '25' changed
 */
export function compareText(before: string, after: string): [Piece[], Piece[]] {
  const shorter = Math.min(before.length, after.length);
  let head = 0;
  while (head < shorter && before[head] === after[head]) head += 1;
  let tail = 0;
  while (tail < shorter - head && before[before.length - 1 - tail] === after[after.length - 1 - tail]) tail += 1;
  // A number is changed as a whole: of .80 and .90 no digit is the same one.
  const cuts = (text: string, at: number): boolean => isDigit(text[at - 1]) && isDigit(text[at]);
  while (head > 0 && (cuts(before, head) || cuts(after, head))) head -= 1;
  while (tail > 0 && (cuts(before, before.length - tail) || cuts(after, after.length - tail))) tail -= 1;
  const split = (text: string): Piece[] =>
    [
      { text: text.slice(0, head), changed: false },
      { text: text.slice(head, text.length - tail), changed: true },
      { text: text.slice(text.length - tail), changed: false },
    ].filter((piece) => piece.text !== '');
  return [split(before), split(after)];
}

function isDigit(letter: string | undefined): boolean {
  return letter !== undefined && letter >= '0' && letter <= '9';
}
