/**
 * Text of strangers as it can be kept and sent on: NUL, which no database holds, and halves of characters become the mark for what
 * cannot be shown (U+FFFD).
 *
 *     storable('Boats\u0000 and \ud83d') // 'Boats\ufffd and \ufffd'
 */
export function storable(text: string): string {
  // oxlint-disable-next-line no-control-regex
  return text.replace(/[\u0000\ud800-\udfff]/gu, '\ufffd');
}
