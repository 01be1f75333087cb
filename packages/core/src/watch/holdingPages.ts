import { PageLook } from '../survey/website';
import { PageChange } from './pageChanges';
import { HOLDING } from './pageFault';

/**
 * Pages with which a web host answers for a domain that it does not know, or has published nothing for: told by a title that the agency
 * has noted, whatever the status says. Many answer 200 there, and a site that is not there looks like one that is.
 *
 *     holdingPages([{ start: 'https://choir.example/', page: { title: 'No site here', … }, … }], ['no site here'])
 */
export function holdingPages(looks: readonly PageLook[], titles: readonly string[]): PageChange[] {
  const noted = titles.map(folded).filter((title) => title !== '');
  const found = new Map<string, string[]>();
  for (const { start, page } of looks) {
    const title = folded(page?.title ?? '');
    if (noted.some((one) => title.includes(one))) found.set(page!.title!, [...(found.get(page!.title!) ?? []), start]);
  }
  return [...found].map(([title, pages]) => ({ pages, weight: 'broken', text: `${HOLDING}“${title.trim()}”` }));
}

/** Without regard to case and to how blanks are laid. */
function folded(text: string): string {
  return text.toLowerCase().replace(/\s+/g, ' ').trim();
}
