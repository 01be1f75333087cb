/** A short name for a text: equal texts have equal ones, others almost never. No secret is kept by it (FNV-1a, 2 × 32 bits). */
export function fingerprint(text: string): string {
  let a = 0x811c9dc5;
  let b = 0xcbf29ce4;
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    a = Math.imul(a ^ code, 0x01000193);
    b = Math.imul(b ^ (code + i), 0x01000193);
  }
  return `${(a >>> 0).toString(16)}-${(b >>> 0).toString(16)}`;
}
