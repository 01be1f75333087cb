import { Find, Form, Subject, Unread } from './find';
import { Line } from './lines';
import { readOwner } from './owner';

/** Forms that read a part of a line; of the others each part of a line is accounted for, or asked about. */
const LOOSE: ReadonlySet<Form> = new Set(['sentence', 'fields', 'list']);
/** Addresses, terms of SPF, proofs of ownership, names: what a line is pasted for. Links and mail addresses are none. */
const VALUES =
  /\b\d{1,3}(?:\.\d{1,3}){3}\b|\b[0-9a-f]{0,4}(?::[0-9a-f]{0,4}){2,7}\b|\b(?:include|redirect|ip4|ip6)[:=]\S+|\b[\w-]+-verification=\S+|(?<![\w@/.:=-])(?:[a-z0-9_-]+\.)+[a-z]{2,}\b(?![/@])/gi;
/** Values that are told of one line. */
const TOLD = 3;

/**
 * Lines of which something was read and something else was not, each with what that is: what somebody pasted vanishes nowhere.
 *
 *     // SPF: add include:spf.post.example, and point www to 203.0.113.80  // of which the address was read
 *     // { line: 1, text: 'SPF: add …', problem: 'Not read in it: include:spf.post.example.' }
 */
export function partlyRead(lines: readonly Line[], finds: readonly Find[], subject: Subject): Unread[] {
  const byLine = new Map<number, Find[]>();
  for (const find of finds) {
    if (!LOOSE.has(find.form)) continue;
    for (let line = find.line; line <= find.lastLine; line++) {
      const here = byLine.get(line);
      if (here) here.push(find);
      else byLine.set(line, [find]);
    }
  }
  return lines.flatMap(({ line, text }): Unread[] => {
    const here = byLine.get(line);
    if (!here) return [];
    const told = here.flatMap(({ owner, data, others }) => [owner, data, ...others.flatMap((one) => [one.owner, one.data])]);
    const known = new Set(told.flatMap((one) => one.split(/[\s"'“”();,]+/)).map(folded));
    const hasServers = here.some(({ kind }) => kind === 'nameserver');
    const left = [...text.matchAll(VALUES)].map(([value]) => value.replace(/[.,;:)"'”“]+$/, '')).filter((value) => !isKnown(value, known, hasServers, subject));
    if (left.length === 0) return [];
    const more = left.length > TOLD ? ` and ${left.length - TOLD} more` : '';
    return [{ line, text: text.trim().slice(0, 300), problem: `Not read in it: ${left.slice(0, TOLD).join(', ')}${more}.` }];
  });
}

/** The value is in what was read of its line, is a name that the line is about, or stands beside a nameserver as its address. */
function isKnown(value: string, known: ReadonlySet<string>, hasServers: boolean, subject: Subject): boolean {
  const text = folded(value);
  if (known.has(text)) return true;
  if (hasServers && /^[\d.]+$|:.*:/.test(text)) return true;
  const owner = readOwner(text, subject);
  if (owner?.is !== 'ours') return false;
  return owner.owner === '@' || known.has(folded(owner.owner));
}

function folded(text: string): string {
  return text.toLowerCase().replace(/\.$/, '');
}
