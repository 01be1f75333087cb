/**
 * The text of a TXT record as its readers join it (RFC 7208 §3.3), from its presentation form (RFC 1035 §5.1).
 *
 *     joined('"v=spf1 " "-all"')  // v=spf1 -all
 */
export function joined(data: string): string {
  return strings(data).join('');
}

/** The character-strings of a TXT record. */
export function strings(data: string): string[] {
  const found = data.match(/"(?:[^"\\]|\\.)*"|[^\s"]+/gs) ?? [];
  return found.map((one) => unescaped(one.startsWith('"') ? one.slice(1, -1) : one));
}

/**
 * What escapes of zone files stand for, a character for each octet (RFC 1035 §5.1).
 *
 *     unescaped('0 10\\032mail')  // '0 10 mail'
 */
export function unescaped(text: string): string {
  return text.replace(/\\(\d{3}|.)/gs, (_, what: string) => (what.length === 3 ? String.fromCharCode(Number(what)) : what));
}
