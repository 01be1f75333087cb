import {
  ExportedSet,
  Meaning,
  Name,
  RRset,
  Follower,
  inReadingOrder,
  isForMail,
  meaningsOf,
  rrsetFromText,
  sourceWords,
  treeOf,
  TreeNode,
} from '@wanderon/core';
import { EvidenceView, HintView, MoveSurvey } from '@wanderon/contract';

export type SetText = MoveSurvey['sets'][number];

/** A record set with what it serves and ends at. */
export interface SetRow {
  readonly kind: 'set';
  readonly name: Name;
  readonly set: RRset;
  readonly text: SetText;
  readonly meaning: Meaning;
  /** A person said what it is for. */
  readonly corrected: boolean;
  readonly ends: readonly { readonly target: string; readonly addresses: readonly string[] }[];
  /** Sources that say otherwise. */
  readonly conflicts: readonly EvidenceView[];
}

export interface HintRow {
  readonly kind: 'hint';
  readonly name: Name;
  readonly hint: HintView;
}

export type Item = SetRow | HintRow;

/** A line of the list: a heading, or an item with how deep it stands. */
export type Line =
  | { readonly kind: 'section'; readonly title: string; readonly count: number; readonly key: string }
  | {
      readonly kind: 'item';
      readonly item: Item;
      readonly key: string;
      readonly depth: number;
      /** The part of the name that is shown; empty for further items of one name. */
      readonly label: string;
      readonly below: number;
    }
  | { readonly kind: 'name'; readonly name: Name; readonly key: string; readonly depth: number; readonly label: string; readonly below: number };

export function itemsOf(survey: MoveSurvey, zone: Name): Item[] {
  const texts = new Map(survey.sets.map((text) => [rrsetFromText(text), text]));
  const sets = inReadingOrder(zone, [...texts.keys()]);
  const meanings = meaningsOf(zone, sets);
  const outside = survey.ends.map(({ target, addresses }) => ({ target: Name.parse(target), addresses }));
  const follower = new Follower(sets, outside);
  const rows = sets.map((set): SetRow => {
    const text = texts.get(set)!;
    const said = survey.purposes.find((one) => one.owner === text.owner && one.type === text.type);
    return {
      kind: 'set',
      name: set.owner,
      set,
      text,
      meaning: said ? { purpose: said.purpose, reason: 'as you said' } : meanings.get(set)!,
      corrected: said !== undefined,
      ends: follower.endsOf(set).map(({ target, addresses }) => ({ target: target.toString(), addresses })),
      conflicts: text.evidence.filter((one) => one.absent || one.data !== null),
    };
  });
  return [...rows, ...survey.hints.map((hint): HintRow => ({ kind: 'hint', name: Name.parse(hint.owner), hint }))];
}

/** The lines of the tree; below names that are `closed` nothing is shown. */
export function linesOf(items: readonly Item[], zone: Name, closed: ReadonlySet<string>): Line[] {
  const lines: Line[] = [];
  const walk = (node: TreeNode<Item>, depth: number): void => {
    const key = node.name.key;
    const below = node.count - node.items.length;
    if (node.items.length === 0) lines.push({ kind: 'name', name: node.name, key: `n${key}`, depth, label: node.label, below });
    node.items.forEach((item, index) =>
      lines.push({ kind: 'item', item, key: `${index}/${key}`, depth, label: index === 0 ? node.label : '', below: index === 0 ? below : 0 }),
    );
    if (!closed.has(key)) for (const child of node.children) walk(child, depth + 1);
  };
  for (const { title, nodes } of treeOf(zone, items, (item) => item.kind === 'set' && isForMail(item.set, item.meaning))) {
    lines.push({ kind: 'section', title, count: nodes.reduce((sum, node) => sum + node.count, 0), key: `s${title}` });
    for (const node of nodes) walk(node, 0);
  }
  return lines;
}

export function matches(item: Item, filter: string): boolean {
  if (filter === '') return true;
  const text =
    item.kind === 'hint'
      ? `${item.hint.owner} hint ${item.hint.text}`
      : `${item.text.owner} ${item.text.type} ${item.text.data.join(' ')} ${item.meaning.purpose} ${item.conflicts.length > 0 ? 'conflict' : ''} ${item.text.varying ? 'varying' : ''} ${item.text.fronted ? 'fronted' : ''}`;
  return filter
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.toLowerCase().includes(word));
}

/** One sighting in words. */
export function evidenceWords(one: EvidenceView): string {
  const words = sourceWords({ kind: one.kind, server: one.server ?? undefined, address: one.address ?? undefined, serial: one.serial ?? undefined });
  return one.because && one.server === null && one.kind !== 'given' ? one.because : one.because ? `${words}; its name: ${one.because}` : words;
}

/** All sightings in a word or two, such as `2 transfers, your file`. */
export function evidenceShort(evidence: readonly EvidenceView[]): string {
  const kinds = [
    ['transfer', 'transfer'],
    ['walk', 'walk'],
    ['answer', 'answer'],
  ] as const;
  const parts = kinds.flatMap(([kind, word]) => {
    const count = evidence.filter((one) => one.kind === kind && !one.absent && one.data === null).length;
    return count === 0 ? [] : [count === 1 ? word : `${count} ${word}s`];
  });
  if (evidence.some((one) => one.kind === 'given' && one.data === null)) parts.push('in hand');
  return parts.join(', ');
}

export function exportedSets(items: readonly Item[]): ExportedSet[] {
  return items.flatMap((item) =>
    item.kind === 'set' ? [{ set: item.set, evidence: item.text.evidence.map(evidenceWords).join(' | '), purpose: item.meaning.purpose }] : [],
  );
}
