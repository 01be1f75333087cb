/** What stands in the titles of pages that a registrar or web host shows where nobody has a website, in six languages. */
const UNUSED = [
  /\bparked\b|\b(domain|web) ?parking\b|\bparking page\b|(\bdomain( name)?|\.[a-z]{2,}) (is )?for sale\b|\bcoming soon\b|\bunder construction\b|\bdefault (web ?)?page\b|^it works|^index of \/|\bfuture home of\b|\b(test|placeholder) page\b|\bno (web ?)?site (is )?(here|configured)\b|^welcome to your (new )?(web ?site|domain)/i,
  /\bgeparkt\b|\bhier entsteht\b|\b(im|in) aufbau\b|\bdomain\b.*\bzu verkaufen\b|\bin vorbereitung\b|\bstandardseite\b/i,
  /\bgeparkeerd\b|\bin aanbouw\b|\bdomein(naam)?\b.*\b(te koop|gereserveerd)\b|\bstandaardpagina\b/i,
  /\bparqué\b|\ben construction\b|\b(nom de )?domaine\b.*(à vendre|réservé)|\bpage par défaut\b/i,
  /\b(a|es)parcado\b|\bestacionado\b|\ben construcción\b|\bdominio\b.*\ben venta\b|\bpágina (por defecto|predeterminada)\b/i,
  /\bparcheggiato\b|\bin costruzione\b|\bdominio\b.*\bin vendita\b|\bpagina predefinita\b/i,
];

/**
 * True for a title of pages that registrars and web hosts show where nobody has published a website. A guess by words: a person can pass over
 * whatever rests on it.
 *
 *     isUnusedTitle('choir.example is parked')  // true
 *     isUnusedTitle('Parking at the harbour')   // false
 */
export function isUnusedTitle(title: string): boolean {
  return UNUSED.some((words) => words.test(title));
}
