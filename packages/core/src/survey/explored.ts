import { Name } from '../dns/name';
import { NameMap } from '../dns/nameMap';
import { RRset, sameData } from '../dns/record';
import { TYPE_CODES, typeMnemonic } from '../dns/typeNames';
import { plain } from './words';

/** Names that are asked for at most: a server may lead from each to the next without end. */
export const MOST_NAMES = 20_000;

/** A sign of something that was not seen. */
export interface Hint {
  readonly name: Name;
  readonly text: string;
  /** The type of a set that is known to exist there, or may, and that no server let be read; in mnemonics. */
  readonly unread?: string | undefined;
}

export interface FoundSet {
  readonly set: RRset;
  /** Why its name was asked for. */
  readonly because: string;
}

export interface Explored {
  readonly sets: readonly FoundSet[];
  readonly hints: readonly Hint[];
  /** What stands in the way of a better inventory, or was noticed, in words. */
  readonly remarks: readonly string[];
  readonly asked: number;
  /** Questions spared because the name above does not exist (RFC 8020). */
  readonly spared: number;
}

/** `truncated`: an answer that did not fit, and could not be had otherwise: there is something. `refused`: the server will not say. */
export type Unanswered = 'truncated' | 'refused' | 'silent';

/** What the names below a parent are told apart by. */
export interface Parent {
  readonly name: Name;
  /** `denies`: a name that cannot exist is denied. `blind`: it is not, though no wildcard is there. */
  state: 'asking' | 'denies' | 'wildcard' | 'blind';
  /** What the wildcard has, by type. */
  readonly wild: Map<number, RRset>;
  /** Types of which it is not known what the wildcard has, as no answer came. */
  readonly unknown: Set<number>;
  waiting: Node[];
  open: number;
}

export interface Node {
  readonly name: Name;
  readonly because: string;
  /** `synthesized`: answered as the wildcard above would, so nothing says that it is there. */
  state: 'waiting' | 'asking' | 'exists' | 'absent' | 'held' | 'cut' | 'spared' | 'synthesized';
  readonly sets: Map<number, RRset>;
  open: number;
  /** Types of which no answer came, and of those why. */
  readonly unanswered: Map<number, Unanswered>;
  /** Types answered with exactly what the wildcard has: cannot be told from it (RFC 4592 §2.2). */
  asWildcard: number;
  /** What was answered where it is not known what the wildcard has. */
  readonly unsure: RRset[];
}

/** All that was asked and answered. */
export interface Asked {
  readonly zone: Name;
  readonly parents: NameMap<Parent>;
  readonly nodes: NameMap<Node>;
  readonly wildcards: readonly FoundSet[];
  readonly cuts: NameMap<FoundSet[]>;
  /** A name that was denied although one below it exists. */
  readonly dishonest: Name | undefined;
  readonly asked: number;
  readonly spared: number;
  readonly refused: number;
  readonly leftOut: boolean;
}

/** What can be said after all that was asked: what is there, what may be, and what is not known. */
export function exploredOf(asked: Asked): Explored {
  const { sets, hints, asWildcard } = foundIn(asked);
  hints.push(...unreadOnes(asked), ...emptyOnes(asked));
  sets.sort((a, b) => a.set.owner.compare(b.set.owner) || a.set.type - b.set.type);
  return { sets, hints, remarks: remarksOn(asked, sets, asWildcard), asked: asked.asked, spared: asked.spared };
}

/** Sets that are there, those that may come from a wildcard, and how many cannot be told from one. */
function foundIn(asked: Asked): { sets: FoundSet[]; hints: Hint[]; asWildcard: number } {
  const sets = asked.cuts.values().flat();
  const hints: Hint[] = [];
  let asWildcard = 0;
  for (const found of asked.wildcards) {
    const { owner } = found.set;
    const from = wildFor(asked, owner.parent.parent, found.set);
    if (owner.parent.equals(asked.zone) || from === 'no') sets.push(found);
    else if (from === 'unknown') hints.push({ name: owner, text: unsureWords(found.set) });
  }
  for (const { name, because, ...node } of asked.nodes.values()) {
    asWildcard += node.asWildcard;
    for (const set of node.sets.values()) {
      const from = wildFor(asked, name.parent, set);
      if (from === 'no') sets.push({ set, because });
      else if (from === 'same') asWildcard += 1;
      else hints.push({ name, text: unsureWords(set) });
    }
    for (const set of node.unsure) hints.push({ name, text: unsureWords(set) });
  }
  return { sets, hints, asWildcard };
}

/** Types whose loss breaks something; many servers refuse or drop questions for rarer ones, whether or not there is such a set. */
const MATTERS: ReadonlySet<number> = new Set((['A', 'AAAA', 'CNAME', 'MX', 'TXT', 'SRV', 'CAA', 'NS'] as const).map((mnemonic) => TYPE_CODES[mnemonic]));

/** Sets that are known to exist, and those that may where a server would not say of a name that exists: neither there nor absent. */
function unreadOnes({ nodes }: Asked): Hint[] {
  return nodes.values().flatMap((node) =>
    [...node.unanswered].flatMap(([type, why]): Hint[] => {
      const unread = typeMnemonic(type);
      if (node.sets.has(TYPE_CODES.CNAME)) return [];
      if (why === 'truncated')
        return [{ name: node.name, unread, text: `${unread} is here and could not be read: the answer is too long for UDP, and the server takes no TCP` }];
      if (node.state !== 'exists' || !MATTERS.has(type)) return [];
      const words = why === 'refused' ? 'the server refuses to say' : 'the server gave no answer';
      return [{ name: node.name, unread, text: `whether ${unread} is here is not known: ${words}` }];
    }),
  );
}

/** Names that exist, and of which nothing was seen that would be the reason. */
function emptyOnes({ zone, parents, nodes, wildcards }: Asked): Hint[] {
  const withBelow = new NameMap<true>();
  const explains = (name: Name): void => {
    for (let above = name; above.isBelow(zone);) withBelow.set((above = above.parent), true);
  };
  for (const node of nodes.values()) if (node.sets.size > 0 || node.state === 'cut') explains(node.name);
  // A wildcard explains the name it stands below.
  for (const { set } of wildcards) explains(set.owner);
  return nodes
    .values()
    .filter((node) => node.state === 'exists' && node.sets.size === 0 && node.asWildcard === 0 && !withBelow.has(node.name))
    .filter((node) => parents.get(node.name.parent)?.state === 'denies')
    .filter((node) => ![...node.unanswered].some(([type, why]) => why === 'truncated' || MATTERS.has(type)))
    .map(({ name, unanswered }) => ({
      name,
      text:
        unanswered.size > 0
          ? `it exists, and ${unanswered.size} of its types were not answered`
          : 'it exists and holds nothing that was asked for: a name below it, or a type that was not asked',
    }));
}

function remarksOn({ parents, dishonest, leftOut, refused }: Asked, sets: readonly FoundSet[], asWildcard: number): string[] {
  const remarks: string[] = [];
  const blind = parents.values().filter((parent) => parent.state === 'blind');
  const lost = blind.filter((parent) => parent.unknown.size > 0);
  const agreeing = blind.filter((parent) => parent.unknown.size === 0);
  if (dishonest) remarks.push(`The server denies ${plain(dishonest.toString())} although a name below it exists: nothing was concluded from its denials.`);
  if (lost.length > 0) remarks.push(`Below ${listed(lost)} it is not known what the server says of names that do not exist, as answers were lost.`);
  if (agreeing.length > 0) remarks.push(`Below ${listed(agreeing)} the server denies no name: empty answers there say nothing.`);
  // Names below one that does not exist are answered by the wildcard further up.
  const own = parents
    .values()
    .filter(({ name, state }) => state === 'wildcard' && sets.some(({ set }) => set.owner.isWildcard && set.owner.parent.equals(name)));
  for (const { name } of own) remarks.push(`*.${plain(name.toString())} answers for every name below it that has nothing of its own.`);
  if (asWildcard > 0)
    remarks.push(
      `${asWildcard} ${asWildcard === 1 ? 'answer is' : 'answers are'} what the wildcard gives: whether the same stands there explicitly cannot be told.`,
    );
  if (leftOut) remarks.push(`More than ${MOST_NAMES} names were led to; the further ones were not asked for.`);
  if (refused > 0) remarks.push(`${refused} ${refused === 1 ? 'question was' : 'questions were'} not answered, or refused.`);
  return remarks;
}

/**
 * Whether a set of a name below `parent` could be what a wildcard gives: of `parent`, or, where nothing stands in
 * between, of a name further up. `unknown` where a wildcard's own answer never came.
 */
export function wildFor({ zone, parents }: Pick<Asked, 'zone' | 'parents'>, parent: Name, set: RRset): 'same' | 'unknown' | 'no' {
  for (let at = parent; at.isAtOrBelow(zone); at = at.parent) {
    const known = parents.get(at);
    const wild = known?.wild.get(set.type);
    if (wild) return sameData(set.type, wild.data, set.data) ? 'same' : 'no';
    // A wildcard that is an alias would have answered any of the types that it was asked for.
    if (known?.unknown.has(set.type) || (known && known.unknown.size > 0 && set.type === TYPE_CODES.CNAME)) return 'unknown';
    if (known?.state === 'denies') return 'no';
    if (at.isRoot) break;
  }
  return 'no';
}

function unsureWords(set: RRset): string {
  return `${typeMnemonic(set.type)} was answered, and may stand here or come from a wildcard that did not answer`;
}

/** The first few names, and how many more. */
function listed(parents: readonly Parent[]): string {
  const names = parents.slice(0, 3).map(({ name }) => plain(name.toString()));
  return parents.length > 3 ? `${names.join(', ')} and ${parents.length - 3} more` : names.join(', ');
}
