/** The most octets of text that are read. */
export const TEXT_LIMIT = 2_000_000;

/** As much as is read, without a last line that would be cut in two. */
export function wholeLines(text: string): string {
  if (text.length <= TEXT_LIMIT) return text;
  return text.slice(0, text.lastIndexOf('\n', TEXT_LIMIT) + 1);
}
