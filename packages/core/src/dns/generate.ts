/** What $GENERATE counts through: `1-10` or `0-100/2`. */
export interface GenerateRange {
  readonly start: number;
  readonly stop: number;
  readonly step: number;
}

/** The most records that one directive may make. */
export const GENERATE_LIMIT = 1_000_000;

/** Numbers are counted in 32 bits with a sign, as servers do. */
const LARGEST = 0x7fff_ffff;

export function parseRange(text: string): GenerateRange | undefined {
  const parts = /^(\d{1,10})-(\d{1,10})(?:\/(\d{1,10}))?$/.exec(text);
  if (!parts) return undefined;
  const range = { start: Number(parts[1]), stop: Number(parts[2]), step: Number(parts[3] ?? 1) };
  return range.start <= range.stop && range.step > 0 && range.step <= LARGEST && range.stop <= LARGEST ? range : undefined;
}

/**
 * Puts the counter into a template: `$` is the counter, `$$` and `\$` a dollar sign, `${offset,width,base}` the counter
 * with an offset, filled up with zeros, in base d, o, x, X, or as nibbles in reverse order n, N. Undefined where the
 * template cannot be read, or a number passes 2³¹ − 1.
 *
 *     fillTemplate('host-${10,3}', 5)  // host-015
 *     fillTemplate('${0,3,n}', 26)     // a.1
 */
export function fillTemplate(template: string, counter: number): string | undefined {
  let text = '';
  for (let at = 0; at < template.length; at++) {
    const character = template[at]!;
    if (character === '\\' && at + 1 < template.length) {
      text += template[at + 1] === '$' ? '$' : character + template[at + 1]!;
      at += 1;
    } else if (character !== '$') text += character;
    else if (template[at + 1] === '$') {
      text += '$';
      at += 1;
    } else if (template[at + 1] === '{') {
      const modifier = /^\{([+-]?\d{1,10})(?:,(\d{1,3})(?:,([doxXnN]))?)?\}/.exec(template.slice(at + 1));
      if (!modifier) return undefined;
      const value = counter + Number(modifier[1]);
      if (value > LARGEST || Number(modifier[1]) > LARGEST || Number(modifier[1]) < -LARGEST - 1) return undefined;
      const base = modifier[3] ?? 'd';
      // Other bases than ten show a negative number as its 32 bits.
      text += printCounter(base === 'd' ? value : value >>> 0, Number(modifier[2] ?? 0), base);
      at += modifier[0].length;
    } else text += String(counter);
  }
  return text;
}

function printCounter(value: number, width: number, base: string): string {
  switch (base) {
    case 'o':
      return value.toString(8).padStart(width, '0');
    case 'x':
      return value.toString(16).padStart(width, '0');
    case 'X':
      return value.toString(16).toUpperCase().padStart(width, '0');
    case 'n':
    case 'N': {
      // The width counts the dots as well; an even one ends in a dot.
      const digits = value.toString(16).padStart(Math.ceil(width / 2), '0');
      const dotted = [...digits].reverse().join('.') + (width >= digits.length * 2 ? '.' : '');
      return base === 'N' ? dotted.toUpperCase() : dotted;
    }
    default:
      return value < 0 ? `-${String(-value).padStart(width - 1, '0')}` : String(value).padStart(width, '0');
  }
}
