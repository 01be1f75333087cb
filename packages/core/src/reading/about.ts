import { plainWord } from './labels';

/** What a heading says of what stands below it. */
export type About = 'old' | 'new' | 'example' | 'past' | undefined;

const OLD =
  /\b(?:current(?:ly)?|existing|old|previous|removed?|deleted?|instead of|aktuell\w*|alt|bisher\w*|vorher|bestehend\w*|alte[nrs]?|loschen|geloscht|entfern\w*|vorhanden\w*|actuel\w*|existant\w*|ancien\w*|supprimer|actual(?:es)?|existente\w*|antigu\w*|eliminar|borrar|anterior(?:es)?|attual\w*|esistent\w*|vecchi\w*|eliminare|rimuovere|found|gefunden|trouvee?s?|encontrad\w*|trovat\w*|gevonden|huidige?|bestaande?|oude?|verwijder\w*)\b/;
const NEW =
  /\b(?:new|required?|add|create|set(?: up)?|should|must|replace (?:it |them )?(?:with|by)|to be|neue?[nrs]?|anlegen|hinzufugen|setzen|erforderlich\w*|eintragen|nouveaux?|nouvelles?|ajout\w*|requis\w*|creer|nuev\w*|anadir|agregar|necesari\w*|crear|nuov\w*|aggiung\w*|richiest\w*|creare|expect\w*|erwartet\w*|attendu\w*|esperad\w*|attes[oai]|verwacht\w*|nieuwe?|toevoegen|vereist\w*|instellen|aanmaken)\b/;
const PAST = /\b(?:history|historical|historie|verlauf|historique|historial|storico|geschiedenis|archiv\w*)\b/;
const EXAMPLE = /\b(?:examples?|for instance|e\.?g|beispiel\w*|z\.? ?b|exemples?|ejemplos?|esempi[o]?|voorbeeld\w*|bijvoorbeeld|muster)\b/;

/**
 * Whether a heading, or the label of a column, is about what is there, about what is wanted, or about an example.
 *
 *     aboutOf('Bitte löschen:')   // 'old'
 *     aboutOf('Nouvelle valeur')  // 'new'
 */
export function aboutOf(text: string): About {
  // Names of domains say nothing here, whatever words they are made of.
  const said = plainWord(
    text
      .slice(0, 200)
      .replace(/\S+\.[^\s.]\S*/g, ' ')
      .replace(/\./g, ' '),
  );
  // What should be removed is what is there.
  const plain = said.replace(/\b(?:should|must|need(?:s|ed)?|to|required?)\s+(?:to\s+)?(?:be\s+)?(?=(?:removed?|deleted?)\b)/g, '');
  if (EXAMPLE.test(plain)) return 'example';
  if (PAST.test(plain)) return 'past';
  const [old, next] = [OLD.exec(plain), NEW.exec(plain)];
  if (old && next) return undefined;
  return old ? 'old' : next ? 'new' : undefined;
}

/** True for what is about the opposite of what is asked for: what is wanted, where it is asked what a place has, and the reverse. */
export function isContrary(about: About, as: 'old' | 'new'): boolean {
  return (about === 'old' || about === 'new') && about !== as;
}

/** Why what is contrary is left out: `how` it is said, as in "It is labelled". */
export function contraryWords(how: string, as: 'old' | 'new'): string {
  return as === 'old' ? `${how} as what is wanted.` : `${how} as what is there now.`;
}
