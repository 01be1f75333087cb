/** Four octets, or undefined if the text is not a dotted quad. */
export function parseIpv4(text: string): Uint8Array | undefined {
  const parts = text.split('.');
  if (parts.length !== 4 || parts.some((part) => !/^\d{1,3}$/.test(part) || Number(part) > 255)) return undefined;
  return Uint8Array.from(parts.map(Number));
}

export function printIpv4(octets: Uint8Array): string {
  return octets.join('.');
}

/** Sixteen octets (RFC 4291 §2.2, with an embedded IPv4 address if it ends in one), or undefined. */
export function parseIpv6(text: string): Uint8Array | undefined {
  let source = text;
  const quad = /^(.*:)(\d+\.\d+\.\d+\.\d+)$/.exec(text);
  if (quad) {
    const tail = parseIpv4(quad[2]!);
    if (!tail) return undefined;
    source = `${quad[1]}${((tail[0]! << 8) | tail[1]!).toString(16)}:${((tail[2]! << 8) | tail[3]!).toString(16)}`;
  }
  const halves = source.split('::');
  if (halves.length > 2) return undefined;
  const groups = halves.map((half) => (half === '' ? [] : half.split(':')));
  if (groups.flat().some((group) => !/^[0-9a-fA-F]{1,4}$/.test(group))) return undefined;
  const head = groups[0]!;
  const tail = groups[1] ?? [];
  const gap = 8 - head.length - tail.length;
  if (halves.length === 2 ? gap < 1 : gap !== 0) return undefined;
  const all = [...head, ...Array<string>(gap).fill('0'), ...tail].map((group) => parseInt(group, 16));
  return Uint8Array.from(all.flatMap((group) => [group >> 8, group & 0xff]));
}

/** RFC 5952: lower case, the longest run of two or more zero groups as `::`. */
export function printIpv6(octets: Uint8Array): string {
  const groups = Array.from({ length: 8 }, (_, i) => (octets[i * 2]! << 8) | octets[i * 2 + 1]!);
  let from = -1;
  let longest = 1;
  for (let i = 0; i < 8; i++) {
    let run = 0;
    while (i + run < 8 && groups[i + run] === 0) run += 1;
    if (run > longest) {
      longest = run;
      from = i;
    }
  }
  const print = (part: readonly number[]): string => part.map((group) => group.toString(16)).join(':');
  if (from < 0) return print(groups);
  if (from === 0 && longest === 6) return `::${printIpv4(octets.subarray(12))}`;
  if (from === 0 && longest === 5 && groups[5] === 0xffff) return `::ffff:${printIpv4(octets.subarray(12))}`;
  return `${print(groups.slice(0, from))}::${print(groups.slice(from + longest))}`;
}

export function isIpv4(text: string): boolean {
  return parseIpv4(text) !== undefined;
}

export function isIpv6(text: string): boolean {
  return parseIpv6(text) !== undefined;
}
