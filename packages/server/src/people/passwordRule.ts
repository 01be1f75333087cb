import { dictionary } from '@zxcvbn-ts/language-common';

const SHORTEST = 12;
/** Of what is left without digits and signs at its ends, and of a part that is repeated, something has to remain. */
const SHORTEST_CORE = 6;
const PRODUCT = 'wanderon';

let common: ReadonlySet<string> | undefined;

/**
 * Why a password is not taken; undefined where it is. It is held against the commonest ones, as they are and dressed up, and against
 * the login and the product (OWASP ASVS 2.1: length, no composition rules, a list of known ones).
 *
 *     passwordProblem('password2026!!', 'technician') // 'It is one of the commonest passwords, dressed up.'
 */
export function passwordProblem(password: string, login: string): string | undefined {
  if ([...password].length < SHORTEST) return `A password has at least ${SHORTEST} characters.`;
  common ??= new Set(dictionary.passwords);
  const plain = password.toLowerCase();
  if (common.has(plain)) return 'It is one of the commonest passwords.';
  const core = plain.replace(/^[\d\W_]+|[\d\W_]+$/gu, '');
  const part = onePart(plain);
  if (new Set(plain).size < 5 || part !== plain || core.length < SHORTEST_CORE)
    return isVaried(plain) && part === plain ? undefined : 'It says the same over and over.';
  if (common.has(core)) return 'It is one of the commonest passwords, dressed up.';
  for (const [word, what] of [
    [PRODUCT, 'the name of this program'],
    [login.toLowerCase(), 'the login'],
  ] as const)
    if (plain.includes(word) && plain.replaceAll(word, '').length < SHORTEST) return `It is hardly more than ${what}.`;
  return undefined;
}

/** What a text repeats: `abab` is `ab` twice; a text that repeats nothing is itself. */
function onePart(text: string): string {
  const at = (text + text).indexOf(text, 1);
  return text.slice(0, at);
}

/** Mostly digits and signs, and no two of them alike: as a generator makes them. */
function isVaried(text: string): boolean {
  return new Set(text).size >= 8;
}
