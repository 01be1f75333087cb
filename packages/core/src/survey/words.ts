/** What a survey can claim of the inventory, as screens say it. */
export const GRADE_WORDS = { whole: 'complete', 'likely whole': 'probably complete', partial: 'incomplete' } as const;

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

/** `the new host` → `The new host` */
export function capital(text: string): string {
  return `${text.charAt(0).toUpperCase()}${text.slice(1)}`;
}

/** `Lower the TTLs` → `lower the TTLs`, as within a sentence */
export function uncapital(text: string): string {
  return `${text.charAt(0).toLowerCase()}${text.slice(1)}`;
}

/** What a record set is called in a sentence: `www.choir.example. CNAME` → `www.choir.example CNAME` */
export function setWords({ owner, type }: { readonly owner: string; readonly type: string }): string {
  return `${plain(owner)} ${type}`;
}
