import { showName } from '../../dns/showName';
import { otherSpelling } from '../../survey/website';
import { Check, remark } from './check';
import { leadAt } from './leadAt';

/**
 * A spelling of the website led its visitors elsewhere, by its web server: the records that move do not bring that along (an alias is no
 * redirect, RFC 1034 §3.6.2), and nothing in the plan rebuilds it.
 */
export const redirectLost: Check = ({ rulings, redirects }) =>
  redirects.flatMap(({ from, to }) => {
    const row = leadAt(rulings, from);
    if (!row || row.ruling === 'carry' || !row.planned) return [];
    const how =
      otherSpelling(to) === from
        ? `Say that ${showName(to)} is the main spelling, so that it is looked at`
        : 'Have the new web host do it, as a task for redirects';
    return [
      remark(row, 'look', 'redirect-lost', `Its web server led visitors to ${showName(to)}: no record does that, and nothing in the plan rebuilds it. ${how}.`),
    ];
  });
