import { plainWord } from './labels';

/** Words of buttons and states beside records, in six languages. */
const NOISE: ReadonlySet<string> = new Set(
  `edit delete remove copy save cancel add active enabled disabled ok valid verified propagated pending proxied dns only on off yes no more details change view manage
bearbeiten loschen entfernen kopieren speichern andern aktiv aktiviert inaktiv gultig ja nein
modifier supprimer copier actif active inactif oui non editer
inactive paused suspended deactivated deaktiviert pausiert desactive inactivo desactivado inattivo disattivato disabilitato uitgeschakeld auto automatic
editer editar eliminar borrar copiar activo activado inactivo si
modifica elimina copia attivo attivato
bewerken verwijderen kopieren actief wijzigen nee default automatisch`
    .split(/\s+/)
    .filter(Boolean),
);

/** Characters of a cell that may be a button or a state. */
const LONGEST = 60;

/**
 * True for what says nothing about a record: icons, buttons, states, dates, nothing at all.
 *
 *     isNoise('✎ 🗑')             // true
 *     isNoise('Bearbeiten Löschen') // true
 *     isNoise('192.0.2.1')          // false
 */
export function isNoise(text: string): boolean {
  if (text.length > LONGEST) return false;
  const trimmed = text.trim();
  if (!/[\p{L}\p{N}]/u.test(trimmed)) return !/[@*]/.test(trimmed);
  if (/^\d{4}-\d\d-\d\d(?:[T ]\d\d:\d\d(?::\d\d)?Z?)?$|^\d\d?[./]\d\d?[./]\d{4}$/.test(trimmed)) return true;
  if (/[.@=/\d]/.test(trimmed.replace(/\.$/, ''))) return false;
  const words = plainWord(trimmed)
    .split(/[^a-z]+/)
    .filter((word) => word !== '');
  return words.length > 0 && words.every((word) => NOISE.has(word));
}
