/** A name as people write it, without the final dot. */
export function plain(name: string): string {
  return name.replace(/\.$/, '');
}

/** `a`, `a and b`, `a, b and c` */
export function listWords(items: readonly string[]): string {
  return items.length < 2 ? (items[0] ?? '') : `${items.slice(0, -1).join(', ')} and ${items.at(-1)!}`;
}

/** `1 name`, `2 names` */
export function counted(count: number, one: string, more = `${one}s`): string {
  return `${count} ${count === 1 ? one : more}`;
}
