import { typeWord } from './typeWord';

/** Characters of a title. */
const LONGEST = 200;

/** The one type that a title names: "MX records", "Enregistrements TXT", "CNAME-Einträge:", "A (2)". */
export function titleType(text: string): string | undefined {
  if (text.length > LONGEST) return undefined;
  const words = text
    .replace(/\s*\(\d+\)\s*:?$/, '')
    .split(/[\s:()-]+/)
    .filter((word) => word !== '');
  if (words.length > 4) return undefined;
  const types = words.flatMap((word) => (/^[A-Z]{1,6}$/.test(word) ? (typeWord(word) ?? []) : []));
  return types.length === 1 && words.every((word) => word === types[0] || /^[\p{L}-]{3,}$/u.test(word)) ? types[0] : undefined;
}
