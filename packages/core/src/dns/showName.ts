import { toUnicode } from 'tr46';

/** The accented form of a name where it has one, else the name as it is. Takes and gives no final dot. */
export function showName(ascii: string): string {
  if (!ascii.includes('xn--')) return ascii;
  const { domain, error } = toUnicode(ascii, { checkBidi: true, checkHyphens: false, checkJoiners: true, useSTD3ASCIIRules: false });
  return error ? ascii : domain;
}
