import { Find, Subject, Unread } from './find';
import { contradictions } from './judge';
import { Line } from './lines';
import { namesBelow } from './nameLists';
import { readOwner } from './owner';
import { isTorn } from './torn';

/** Names that are taken from lines that were not read. */
const MOST_NAMES = 2000;

/** What the finds say of each other, and what stands around them. */
export function settleFinds(
  all: readonly Find[],
  lines: readonly Line[],
  unread: readonly Unread[],
  { subject, isPage, partly }: { readonly subject: Subject; readonly isPage: boolean; readonly partly: readonly Unread[] },
): Find[] {
  const quote = new Map(lines.map(({ line, quote: depth }) => [line, depth]));
  const depths = all.filter(({ kind, trust }) => kind !== 'name' && trust !== 'out').map(({ line }) => quote.get(line) ?? 0);
  const least = depths.reduce((lowest, depth) => Math.min(lowest, depth), Infinity);
  const unreadLines = new Map(unread.map((one) => [one.line, one]));
  const texts = new Map(lines.map(({ line, text }) => [line, text]));
  const finds = all.map((find): Find => {
    if (find.trust === 'out' || find.kind === 'name') return find;
    if ((quote.get(find.line) ?? 0) > least) return { ...find, trust: 'out', questions: ['It stands in the quoted part of a mail.'] };
    if (!isPage && isTorn(find, unreadLines, texts)) return { ...find, trust: 'ask', questions: [...find.questions, 'Does the line below belong to it?'] };
    return find;
  });
  const { zone } = subject;
  if (zone !== undefined) {
    const known = new Set(finds.map(({ owner }) => owner.toLowerCase()));
    let count = 0;
    for (const { line, text } of [...unread, ...partly])
      for (const name of namesBelow(text, zone)) {
        const owner = readOwner(name, subject);
        if (owner?.is !== 'ours' || known.has(owner.owner) || count >= MOST_NAMES) continue;
        known.add(owner.owner);
        count += 1;
        finds.push({
          kind: 'name',
          owner: owner.owner,
          type: '',
          data: '',
          ttl: undefined,
          trust: 'ask',
          questions: [unreadLines.has(line) ? 'It stands in a line that was not read.' : 'It stands in a line of which a part was not read.'],
          others: [],
          form: 'page source',
          line,
          lastLine: line,
        });
      }
  }
  return contradictions(distinct(finds));
}

/** The same thing twice is one; the surer of both is kept. */
function distinct(finds: readonly Find[]): Find[] {
  const byKey = new Map<string, Find>();
  for (const find of finds) {
    const key = `${find.kind} ${find.owner.toLowerCase()} ${find.type} ${find.type === 'TXT' ? find.data : find.data.toLowerCase()} ${find.trust === 'out'}`;
    const known = byKey.get(key);
    if (!known || (find.trust === 'sure' && known.trust === 'ask')) byKey.set(key, find);
  }
  return [...byKey.values()].sort((a, b) => a.line - b.line);
}
