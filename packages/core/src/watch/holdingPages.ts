import { isUnusedTitle } from '../survey/unusedTitle';
import { PageLook } from '../survey/website';
import { PageChange } from './pageChanges';
import { HOLDING, UNUSED } from './pageFault';
import { together } from './together';

/**
 * Pages with which a web host answers for a domain that it does not know, or has published nothing for: told by a title that the agency
 * has noted, or by one that pages for unused domains bear and that no page bore at the survey (`before`). Many answer 200 there, and a site
 * that is not there looks like one that is.
 *
 *     holdingPages([{ start: 'https://choir.example/', page: { title: 'No site here', … }, … }], ['no site here'])
 */
export function holdingPages(looks: readonly PageLook[], titles: readonly string[], before: readonly PageLook[] = []): PageChange[] {
  const borne = new Set(before.map(({ page }) => folded(page?.title ?? '')));
  const noted = titles.map(folded).filter((title) => title !== '');
  return together(
    looks.flatMap(({ start, page }) => {
      const title = page?.title ?? '';
      const isNoted = noted.some((one) => folded(title).includes(one));
      if (!isNoted && (borne.has(folded(title)) || !isUnusedTitle(title.trim()))) return [];
      return [{ pages: [start], weight: 'broken' as const, text: `${isNoted ? HOLDING : UNUSED}“${title.trim()}”` }];
    }),
  );
}

/** Without regard to case and to how blanks are laid. */
function folded(text: string): string {
  return text.toLowerCase().replace(/\s+/g, ' ').trim();
}
