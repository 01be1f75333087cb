import { Name } from '../dns/name';
import { NameMap } from '../dns/nameMap';
import { RRset } from '../dns/record';
import { Meaning } from './purpose';

/** A name with what stands at it and below it. */
export interface TreeNode<Item> {
  readonly name: Name;
  /** What it adds to the name above: `_sip._tcp` where nothing stands in between. */
  readonly label: string;
  readonly items: readonly Item[];
  readonly children: readonly TreeNode<Item>[];
  /** Items here and below. */
  readonly count: number;
}

export interface TreeSection<Item> {
  readonly title: 'The domain itself' | 'www' | 'Mail' | 'The rest';
  readonly nodes: readonly TreeNode<Item>[];
}

/**
 * The names of a zone as a person thinks of them: the domain itself, `www`, what is for mail, then the rest, each with what
 * hangs below it. Names that hold nothing and lead to one other only are put together with it.
 */
export function treeOf<Item extends { readonly name: Name }>(zone: Name, items: readonly Item[], isMail: (item: Item) => boolean): TreeSection<Item>[] {
  const at = new NameMap<{ items: Item[]; below: NameMap<true> }>();
  const node = (name: Name): { items: Item[]; below: NameMap<true> } =>
    at.getOr(name, () => {
      if (name.isBelow(zone)) node(name.parent).below.set(name, true);
      return { items: [], below: new NameMap<true>() };
    });
  for (const item of items) node(item.name).items.push(item);
  const build = (name: Name, above: Name): TreeNode<Item> => {
    let here = name;
    for (;;) {
      const { items: own, below } = at.get(here)!;
      const names = below.names();
      if (own.length > 0 || names.length !== 1) break;
      here = names[0]!;
    }
    const { items: own, below } = at.get(here)!;
    const children = [...below.names()].sort((a, b) => a.compare(b)).map((child) => build(child, here));
    return { name: here, label: here.relativeTo(above), items: own, children, count: own.length + children.reduce((sum, child) => sum + child.count, 0) };
  };
  const root = at.get(zone);
  const top = root ? [...root.below.names()].sort((a, b) => a.compare(b)).map((name) => build(name, zone)) : [];
  const www = zone.child('www');
  const mail = (one: TreeNode<Item>): boolean => one.items.some(isMail) || one.children.some(mail);
  const apex: TreeNode<Item>[] = root && root.items.length > 0 ? [{ name: zone, label: '@', items: root.items, children: [], count: root.items.length }] : [];
  const isWww = (one: TreeNode<Item>): boolean => one.name.isAtOrBelow(www);
  const sections: TreeSection<Item>[] = [
    { title: 'The domain itself', nodes: apex },
    { title: 'www', nodes: top.filter(isWww) },
    { title: 'Mail', nodes: top.filter((one) => !isWww(one) && mail(one)) },
    { title: 'The rest', nodes: top.filter((one) => !isWww(one) && !mail(one)) },
  ];
  return sections.filter((section) => section.nodes.length > 0);
}

/** Whether a set belongs under mail in the order of reading. */
export function isForMail(set: RRset, meaning: Meaning): boolean {
  return ['mail in', 'mail out', 'sender policy'].includes(meaning.purpose) && set.data.length > 0;
}
