import { showName } from '../dns/showName';

/**
 * The names that a move or leg is about; `names` are absolute without final dot, in lower case. `asked`: single sets elsewhere in the zone that
 * the new web host asks for, by their keys; they are part of the move, and nothing else at their names is.
 */
export type Scope = { readonly kind: 'whole' } | { readonly kind: 'names'; readonly names: readonly string[]; readonly asked?: readonly string[] | undefined };

/** The names that somebody chose, without the `www` that goes with each. */
export function chosenNames(names: readonly string[]): string[] {
  return names.filter((name) => !(name.startsWith('www.') && names.includes(name.slice(4))));
}

/** What a move is called: its domain, its name, or the first of its names. */
export function shownScope(scope: Scope, domain: string): string {
  if (scope.kind === 'whole') return showName(domain);
  const [first, ...more] = chosenNames(scope.names);
  return more.length === 0 ? showName(first!) : `${showName(first!)} and ${more.length} more`;
}

/** True where two moves of one domain would touch the same name. */
export function scopesMeet(a: Scope, b: Scope): boolean {
  if (a.kind === 'whole' || b.kind === 'whole') return true;
  return a.names.some((name) => b.names.includes(name));
}

export function inScope(scope: Scope, owner: string, type: string): boolean {
  if (scope.kind === 'whole') return true;
  const name = owner.toLowerCase();
  return scope.names.includes(name.replace(/\.$/, '')) || (scope.asked?.includes(`${name}/${type}`) ?? false);
}

/** A name at which a move of other names has no more than what its web host asks for. */
export function isAskedElsewhere(scope: Scope, owner: string): boolean {
  return scope.kind === 'names' && !scope.names.includes(owner.replace(/\.$/, '').toLowerCase());
}
