import { aboutOf, isContrary } from './about';
import { plainWord } from './labels';
import { Subject } from './find';

/** Words that say of a record that it does not count, in six languages. */
const OFF =
  /^(?:(?:is |not )?(?:inactive|disabled|paused|suspended|deactivated|not active|deleted|expired|inaktiv|deaktiviert|pausiert|geloscht|inactif|desactive|suspendu|inactivo|desactivado|suspendido|inattivo|disattivato|disabilitato|sospeso|inactief|uitgeschakeld|gedeactiveerd))$/;
/** The same where the heading asks whether it counts. */
const NO = /^(?:no|false|off|0|nein|aus|falsch|non|faux|falso|apagado|spento|nee|uit|onwaar|n)$/;
const ASKS =
  /^(?:active|enabled|status|state|on|live|in use|aktiv|aktiviert|zustand|actif|active|statut|etat|activo|activado|estado|attivo|attivato|stato|actief|ingeschakeld|published)$/;

/** Characters of a state. */
const LONGEST = 80;

export const SWITCHED_OFF = 'It is marked as switched off.';

/**
 * True where a cell or a field says that its record does not count.
 *
 *     isSwitchedOff('Deaktiviert', '')  // true
 *     isSwitchedOff('nein', 'Aktiv')    // true
 *     isSwitchedOff('nein', 'Proxied')  // false
 */
export function isSwitchedOff(text: string, heading: string): boolean {
  const word = plainWord(text.slice(0, LONGEST).replace(/[^\p{L}\p{N} ]/gu, ' '));
  return OFF.test(word) || (NO.test(word) && ASKS.test(plainWord(heading)));
}

/**
 * Why a row is none of what is asked for, by what stands beside it: "Remove" in a row of a list of which others say "Add".
 *
 * @param others what stands in the same column in all rows: a button that is in each says nothing of one
 */
export function outByState(text: string, others: readonly string[], { as }: Subject): string | undefined {
  // A button of a panel is no word about the record: it stands in each row, or in those that may be changed.
  if (!isContrary(aboutOf(text), as) || !others.some((other) => aboutOf(other) === as)) return undefined;
  return as === 'old' ? 'It is marked as what is wanted.' : 'It is marked as what goes.';
}
