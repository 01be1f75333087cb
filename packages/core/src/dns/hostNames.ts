import { Name } from './name';

/** Letters, digits and hyphens, no hyphen at either end (RFC 952, RFC 1123 §2.1). */
function isHostLabel(wire: Uint8Array, at: number): boolean {
  const end = at + 1 + wire[at]!;
  for (let i = at + 1; i < end; i++) {
    const octet = wire[i]! | 32;
    const inside = i > at + 1 && i < end - 1;
    if (!((octet >= 97 && octet <= 122) || (wire[i]! >= 48 && wire[i]! <= 57) || (wire[i] === 45 && inside))) return false;
  }
  return true;
}

/** True if a name may be that of a host; `wildcard`: its first label may be `*`. */
export function isHostName(name: Name, wildcard: boolean): boolean {
  const { wire } = name;
  for (let at = wildcard && name.isWildcard ? 2 : 0; wire[at] !== 0; at += wire[at]! + 1) if (!isHostLabel(wire, at)) return false;
  return true;
}

/** True if a name may stand for a mailbox: any printable first label, then a host name (RFC 1035 §8). The root stands for none. */
export function isMailbox(name: Name): boolean {
  if (name.isRoot) return true;
  const first = name.wire.subarray(1, 1 + name.wire[0]!);
  return first.every((octet) => octet > 32 && octet < 127) && !name.parent.isRoot && isHostName(name.parent, false);
}
