/**
 * What is wrong with the substitution expression of a NAPTR record (RFC 3402 §3.2): a delimiter, an extended regular
 * expression of POSIX, a replacement, and the flag `i` or none. Undefined if nothing is.
 *
 *     substitutionProblem('!^.*$!sip:info@zone.example!i')  // undefined
 */
export function substitutionProblem(text: string): string | undefined {
  if (text === '') return undefined;
  const delimiter = text[0]!;
  if (/[0-9\\i\0]/.test(delimiter)) return 'an expression cannot be delimited by a digit, a backslash or the letter i';
  const parts = split(text.slice(1), delimiter);
  if (parts.length !== 3) return 'an expression has its delimiter three times';
  const [pattern, replacement, flags] = parts as [string, string, string];
  if (pattern === '') return 'an expression has no pattern';
  if (/[^i]/.test(flags)) return 'the only flag of an expression is i';
  const groups = groupsOf(pattern);
  if (groups === undefined) return 'the pattern is no regular expression';
  for (const [, digit] of replacement.matchAll(/\\(.)/gs))
    if (/[0-9]/.test(digit!) && (digit === '0' || Number(digit) > groups)) return `\\${digit} stands for no group`;
  return undefined;
}

/** Splits at delimiters that no backslash stands before. */
function split(text: string, delimiter: string): string[] {
  const parts = [''];
  for (let i = 0; i < text.length; i++) {
    if (text[i] === '\\' && i + 1 < text.length) parts[parts.length - 1] += text[i]! + text[++i]!;
    else if (text[i] === delimiter) parts.push('');
    else parts[parts.length - 1] += text[i]!;
  }
  return parts;
}

/** How many groups an extended regular expression has; undefined if it is none. */
function groupsOf(pattern: string): number | undefined {
  let groups = 0;
  let open = 0;
  let repeatable = false;
  // Something stands in this branch: an empty one is no expression.
  let filled = false;
  for (let i = 0; i < pattern.length; i++) {
    switch (pattern[i]) {
      case '\\': {
        const next = pattern[++i];
        if (next === undefined || (/[0-9]/.test(next) && (next === '0' || Number(next) > groups))) return undefined;
        repeatable = filled = true;
        break;
      }
      case '(':
        groups += 1;
        open += 1;
        repeatable = filled = false;
        break;
      case ')':
        // Without an opening one it stands for itself.
        if (open > 0 && pattern[i - 1] === '|') return undefined;
        open = Math.max(0, open - 1);
        repeatable = filled = true;
        break;
      case '[': {
        // A bracket right after the opening one, or after `^`, is a member.
        let close = pattern[i + 1] === '^' ? i + 2 : i + 1;
        if (pattern[close] === ']') close += 1;
        while (close < pattern.length && pattern[close] !== ']') {
          const special = pattern[close] === '[' && /[.:=]/.test(pattern[close + 1] ?? '') ? pattern[close + 1]! : undefined;
          const end = special === undefined ? -1 : pattern.indexOf(`${special}]`, close + 2);
          if (special !== undefined && end < 0) return undefined;
          close = special === undefined ? close + 1 : end + 2;
        }
        if (close >= pattern.length) return undefined;
        if (
          /([^[])-([^\]])/
            .exec(pattern.slice(i + 1, close))
            ?.slice(1)
            .reduce((from, to) => String(from > to)) === 'true'
        )
          return undefined;
        i = close;
        repeatable = filled = true;
        break;
      }
      case '{': {
        // A brace that no number follows stands for itself.
        if (!/^\{,?\d/.test(pattern.slice(i))) {
          repeatable = filled = true;
          break;
        }
        const bounds = /^\{(\d{0,3})(,(\d{1,3})?)?\}/.exec(pattern.slice(i));
        if (
          !bounds ||
          !repeatable ||
          Number(bounds[1]) > 255 ||
          (bounds[3] !== undefined && (Number(bounds[3]) > 255 || Number(bounds[3]) < Number(bounds[1])))
        )
          return undefined;
        i += bounds[0].length - 1;
        repeatable = false;
        break;
      }
      case '*':
      case '+':
      case '?':
        if (!repeatable) return undefined;
        repeatable = false;
        break;
      case '|':
        if (!filled) return undefined;
        repeatable = filled = false;
        break;
      case '^':
        repeatable = false;
        filled = true;
        break;
      default:
        repeatable = filled = true;
    }
  }
  return open === 0 && filled ? groups : undefined;
}
