import { typeCode } from '../dns/typeNames';

/** Types that panels have beside those of the registry: an alias that the host resolves itself. */
const ALIASES: ReadonlySet<string> = new Set(['ALIAS', 'ANAME']);
const LONGEST = 60;

/**
 * The type that a word or a cell says, as its mnemonic; undefined where it is none. Words that panels put beside it make no difference.
 *
 *     typeWord('MX')               // 'MX'
 *     typeWord('A (IPv4 address)') // 'A'
 *     typeWord('TXT-Eintrag')      // 'TXT'
 */
export function typeWord(text: string): string | undefined {
  if (text.length > LONGEST) return undefined;
  const bare = text
    .trim()
    .replace(/\s*\(.*\)$/, '')
    .replace(/[\s-]+(?:resource )?(?:records?|entry|eintrag|einträge|enregistrements?|registros?)$/i, '');
  if (!/^(?:[A-Z][A-Z0-9-]{0,11}|[a-z][a-z0-9-]{0,11}|Txt|Cname|Mx|Srv|Aaaa|Caa|Ns)$/.test(bare) || /^(?:in|any)$/i.test(bare)) return undefined;
  const word = bare.toUpperCase();
  return ALIASES.has(word) || typeCode(word) !== undefined ? word : undefined;
}
