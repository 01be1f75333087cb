/**
 * The wildcard that gives a name its answers where neither the name nor a closer one exists (RFC 4592 §2.2.1); undefined for the domain itself
 * and for the wildcard.
 *
 *     wildcardOver('www.choir.example.', 'choir.example.')  // '*.choir.example.'
 */
export function wildcardOver(owner: string, zone: string): string | undefined {
  if (owner.toLowerCase() === zone.toLowerCase()) return undefined;
  const wildcard = `*.${owner.slice(owner.indexOf('.') + 1)}`;
  return wildcard.toLowerCase() === owner.toLowerCase() ? undefined : wildcard;
}
