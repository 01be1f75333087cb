import { Name } from '../dns/name';
import { PageLook, hostOf, siteHosts } from '../survey/website';

/** What stands in the titles of pages that a registrar or web host shows where nobody has a website, in six languages. */
const UNUSED = [
  /\bparked\b|\b(domain|web) ?parking\b|\bparking page\b|(\bdomain( name)?|\.[a-z]{2,}) (is )?for sale\b|\bcoming soon\b|\bunder construction\b|\bdefault (web ?)?page\b|^it works|^welcome to your (new )?(web ?site|domain)/i,
  /\bgeparkt\b|\bhier entsteht\b|\b(im|in) aufbau\b|\bdomain\b.*\bzu verkaufen\b|\bin vorbereitung\b|\bstandardseite\b/i,
  /\bgeparkeerd\b|\bin aanbouw\b|\bdomein(naam)?\b.*\b(te koop|gereserveerd)\b|\bstandaardpagina\b/i,
  /\bparqué\b|\ben construction\b|\b(nom de )?domaine\b.*(à vendre|réservé)|\bpage par défaut\b/i,
  /\b(a|es)parcado\b|\bestacionado\b|\ben construcción\b|\bdominio\b.*\ben venta\b|\bpágina (por defecto|predeterminada)\b/i,
  /\bparcheggiato\b|\bin costruzione\b|\bdominio\b.*\bin vendita\b|\bpagina predefinita\b/i,
];

/**
 * The title of the page for unused domains that the domain itself and `www` show, both of them where both show one; undefined where a website
 * answers, or nobody knows. A guess by what the page calls itself: nothing is decided by it.
 *
 *     parkedPage(zone, [{ start: 'http://choir.example/', page: { title: 'choir.example is parked', … }, … }])  // 'choir.example is parked'
 */
export function parkedPage(zone: Name, pages: readonly PageLook[]): string | undefined {
  const hosts = siteHosts(zone);
  const own = pages.filter(({ start }) => hosts.includes(hostOf(start)));
  const titles = own.flatMap(({ page }) => (page ? [page.title?.trim() ?? ''] : []));
  if (titles.length === 0 || !titles.every((title) => UNUSED.some((words) => words.test(title)))) return undefined;
  return titles[0];
}
