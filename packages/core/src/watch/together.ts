import { PageChange } from './pageChanges';

/** What is said in the same words is said once, of all pages of which it is true; what is broken comes first. */
export function together(changes: readonly PageChange[]): PageChange[] {
  const told = new Map<string, PageChange>();
  for (const change of changes) {
    const before = told.get(change.text);
    told.set(change.text, before ? { ...before, pages: [...new Set([...before.pages, ...change.pages])] } : change);
  }
  return [...told.values()].sort((a, b) => Number(b.weight === 'broken') - Number(a.weight === 'broken'));
}
