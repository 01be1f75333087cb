import { HostKnowledge } from '../rebuild/host';

/** What is known of a host otherwise by now than a move was planned with, in words; nothing where it is the same. */
export function hostChanges(planned: HostKnowledge, now: HostKnowledge): string[] {
  const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);
  const words: string[] = [];
  // What was given for one site is not all that its host has.
  const isGiven = planned.isGiven ?? false;
  if (!isGiven && !same([...planned.addresses].sort(), [...now.addresses].sort())) words.push(`addresses are ${now.addresses.join(', ') || 'none'} now`);
  if (!isGiven && planned.aliasTarget !== now.aliasTarget) words.push(`the alias target is ${now.aliasTarget?.replace(/\.$/, '') ?? 'none'} now`);
  const lists: [readonly { readonly id: string }[], readonly { readonly id: string }[], (one: never) => string][] = [
    [planned.requires, now.requires, ({ owner, type }: HostKnowledge['requires'][number]) => `the record ${owner} ${type}`],
    [planned.tasks ?? [], now.tasks ?? [], ({ title }: NonNullable<HostKnowledge['tasks']>[number]) => `“${title}”`],
  ];
  for (const [before, after, name] of lists) {
    const [had, has] = [new Map(before.map((one) => [one.id, one])), new Map(after.map((one) => [one.id, one]))];
    for (const [id, one] of has)
      if (!had.has(id)) words.push(`${name(one as never)} is asked for as well`);
      else if (!sameFields(had.get(id)!, one)) words.push(`${name(one as never)} is otherwise`);
    if (isGiven) continue;
    for (const [id, one] of had) if (!has.has(id)) words.push(`${name(one as never)} is not asked for any more`);
  }
  return words;
}

/** Whatever the order in which fields were written. */
function sameFields(a: object, b: object): boolean {
  const sorted = (one: object): string => JSON.stringify(Object.entries(one).sort(([x], [y]) => (x < y ? -1 : 1)));
  return sorted(a) === sorted(b);
}
