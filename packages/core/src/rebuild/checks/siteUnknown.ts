import { hostOf } from '../../survey/website';
import { Check, remark } from './check';
import { leadAt } from './leadAt';

/** Who comes by this name to where the plan leads is turned away there: the host does not know the name, however its records are. */
export const siteUnknown: Check = ({ rulings, faults, newWeb }) => {
  const said = new Set<string>();
  return faults.flatMap(({ pages, text }) =>
    pages.flatMap((page) => {
      const row = leadAt(rulings, hostOf(page));
      if (!row?.planned || row.ruling === 'carry' || said.has(row.owner)) return [];
      said.add(row.owner);
      const add = newWeb ? `If ${newWeb.name} does not know the name yet, have it added there` : 'If the name is not known there yet, have it added';
      return [remark(row, 'look', 'site-unknown', `Where this leads, ${page} ${text}. ${add}: an alias is no redirect.`)];
    }),
  );
};
