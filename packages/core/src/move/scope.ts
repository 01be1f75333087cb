/** The names that a move or leg is about; `names` are absolute without final dot, in lower case. */
export type Scope = { readonly kind: 'whole' } | { readonly kind: 'names'; readonly names: readonly string[] };

/** True where two moves of one domain would touch the same name. */
export function scopesMeet(a: Scope, b: Scope): boolean {
  if (a.kind === 'whole' || b.kind === 'whole') return true;
  return a.names.some((name) => b.names.includes(name));
}

export function inScope(scope: Scope, owner: string): boolean {
  return scope.kind === 'whole' || scope.names.includes(owner.replace(/\.$/, '').toLowerCase());
}
