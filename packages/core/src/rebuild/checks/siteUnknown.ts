import { hostOf } from '../../survey/website';
import { DROPS_PATH, pageFault } from '../../watch/pageFault';
import { Check, Remark, remark } from './check';
import { leadAt } from './leadAt';

/**
 * Who comes by this name to where the plan leads is turned away there, as one whom the host does not know, or is led to the front page
 * whatever they asked for. That nobody answers, or answers with an error, is no matter of the name.
 */
export const siteUnknown: Check = ({ rulings, faults, newWeb }) => {
  const said = new Set<string>();
  return faults.flatMap(({ pages, text }) =>
    pages.flatMap((page): Remark[] => {
      const kind = pageFault(text);
      const code = text === DROPS_PATH ? 'redirect-path' : kind === 'unknown' || kind === 'certificate' ? 'site-unknown' : undefined;
      const row = leadAt(rulings, hostOf(page));
      const key = `${code} ${row?.owner}`;
      if (!code || !row?.planned || row.ruling === 'carry' || said.has(key)) return [];
      said.add(key);
      const host = newWeb?.name ?? 'the new web host';
      if (code === 'redirect-path')
        return [remark(row, 'look', code, `Where this leads, ${page} redirects every page to the front page: have ${host} keep the path.`)];
      const add = `If ${host} does not know the name yet, have it added there: an alias is no redirect.`;
      return [remark(row, 'look', code, `Where this leads, ${page} ${text}. ${add}`)];
    }),
  );
};
