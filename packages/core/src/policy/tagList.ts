/** `tag=value; tag=value` as DKIM and DMARC have it (RFC 6376 §3.2); undefined where it cannot be read. Tags in lower case, in their order. */
export function readTagList(text: string): ReadonlyMap<string, string> | undefined {
  const tags = new Map<string, string>();
  const parts = text.split(';');
  // A semicolon at the end is allowed.
  if (parts.at(-1)!.trim() === '') parts.pop();
  for (const part of parts) {
    const at = part.indexOf('=');
    const tag = part.slice(0, Math.max(0, at)).trim();
    if (at < 0 || !/^[a-z][a-z0-9_]*$/i.test(tag) || tags.has(tag.toLowerCase())) return undefined;
    tags.set(tag.toLowerCase(), part.slice(at + 1).trim());
  }
  return tags;
}
