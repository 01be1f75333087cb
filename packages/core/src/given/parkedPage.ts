import { Name } from '../dns/name';
import { isUnusedTitle } from '../survey/unusedTitle';
import { PageLook, hostOf, siteHosts } from '../survey/website';

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
  if (titles.length === 0 || !titles.every(isUnusedTitle)) return undefined;
  return titles[0];
}
