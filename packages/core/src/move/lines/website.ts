import { Name } from '../../dns/name';
import { leadsThere } from '../../rebuild/checks/leadsThere';
import { isLead } from '../../rebuild/leads';
import { hostOf } from '../../survey/website';
import { listWords, plain } from '../../survey/words';
import { AnsweredPage } from '../../watch/answeredAt';
import { checkInputOf } from '../checkBasis';
import { Leg } from '../leg';
import { LineRule, UNSEEN, line } from './line';

/** In the way where nothing of the plan leads to the new web host; where no page was answered; where the old place answers. */
const STAYS = 'no record of the plan leads to the new web host';
const SILENT = 'no page of the website answers where the plan leads';
const AT_OLD = 'the old place answers';
const ALSO_OLD = 'names lead to the old place as well';

/** Pages and addresses that are told. */
const TOLD = 3;

/**
 * The new web host answers for the domain at its own addresses. It is said to only where a planned record leads there and what answered is
 * not at the old place. Many switch before the site is published, and ought to know it.
 */
export const website: LineRule = (leg) => {
  const { newWeb } = leg.plan;
  if (!newWeb) return undefined;
  const seen = leg.seen.website;
  const leads = leadsNew(leg);
  if (leads && !leg.plan.rulings.some((row) => row.planned && isLead(row.type) && leads(Name.parse(row.owner))))
    return line(leg, 'website', false, `No record of the plan leads to ${newWeb.name}: the website stays where it is.`, { waivable: true, about: [STAYS] });
  if (!seen) return line(leg, 'website', false, 'The website was not looked at yet where the plan leads.', { waivable: true, about: [UNSEEN] });
  const more = { seenAt: seen.at, waivable: true } as const;
  const broken = seen.faults.map(({ pages, text }) => `${pages.join(', ')} ${text}`);
  if (broken.length > 0)
    return line(
      leg,
      'website',
      false,
      `Where the plan leads, the website is broken: ${broken.slice(0, 2).join('; ')}${broken.length > 2 ? `; and ${broken.length - 2} more` : ''}.`,
      { ...more, about: broken },
    );
  // Of a name that goes on leading elsewhere it is no matter who answers.
  const moved = leads ? seen.answers.filter(({ page }) => leads(Name.parse(`${hostOf(page)}.`))) : seen.answers;
  const old = answeredByOld(leg, moved);
  if (old.length > 0) {
    const pages = listWords(old.slice(0, TOLD).map(({ page, addresses }) => `${page} (${addresses.join(', ')})`));
    return line(leg, 'website', false, `By the plan the old place still answers for ${pages}${old.length > TOLD ? ` and ${old.length - TOLD} more` : ''}.`, {
      ...more,
      about: [AT_OLD, ...old.map(({ page }) => page)],
    });
  }
  const split = leads ? leadsToBoth(leg, leads) : [];
  if (split.length > 0) {
    const names = listWords(split.slice(0, TOLD).map(({ name, addresses }) => `${name} (${addresses.join(', ')})`));
    const others = split.length > TOLD ? ` and ${split.length - TOLD} more` : '';
    const text = `By the plan some visitors of ${names}${others} are still led to the old place.`;
    return line(leg, 'website', false, text, { ...more, about: [ALSO_OLD, ...split.map(({ name }) => name)] });
  }
  if (moved.length === 0)
    return line(leg, 'website', false, `No page of what leads to ${newWeb.name} answers there, and none did before.`, { ...more, about: [SILENT] });
  return line(leg, 'website', true, `${newWeb.name} answers for the domain.`, more);
};

/** Whether a name leads to the new web host by the plan; undefined where that host gives an address to each site, and none to tell it by. */
function leadsNew(leg: Leg): ((name: Name) => boolean) | undefined {
  const { zone, rulings, newWeb } = leg.plan;
  if (!newWeb || (newWeb.addresses.length === 0 && !newWeb.aliasTarget)) return undefined;
  const input = checkInputOf(leg.checking, zone, rulings);
  return (name) => leadsThere(input, name);
}

/** Addresses of the old place; one that the new web host has as well is its own. */
function oldAddresses({ checking, plan }: Leg): ReadonlySet<string> {
  const fresh = new Set(plan.newWeb?.addresses);
  return new Set(checking.oldWeb.flatMap((host) => host.addresses).filter((address) => !fresh.has(address)));
}

/** Names that lead to the new web host and to the old place: by one of two families, or by one of several addresses. */
function leadsToBoth(leg: Leg, leads: (name: Name) => boolean): { readonly name: string; readonly addresses: readonly string[] }[] {
  const old = oldAddresses(leg);
  return leg.plan.rulings.flatMap(({ planned }) => {
    const addresses = planned && (planned.type === 'A' || planned.type === 'AAAA') ? planned.data.filter((one) => old.has(one)) : [];
    return addresses.length > 0 && leads(Name.parse(planned!.owner)) ? [{ name: plain(planned!.owner), addresses }] : [];
  });
}

/** Pages that an address of the old place answered, on the way or at the end. */
function answeredByOld(leg: Leg, answers: readonly AnsweredPage[]): AnsweredPage[] {
  const old = oldAddresses(leg);
  return answers.flatMap(({ page, addresses }) => {
    const led = addresses.filter((address) => old.has(address));
    return led.length > 0 ? [{ page, addresses: led }] : [];
  });
}
