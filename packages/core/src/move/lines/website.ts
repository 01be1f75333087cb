import { LineRule, UNSEEN, line } from './line';

/** The new web host answers for the domain at its own addresses. Many switch before the site is published, and ought to know it. */
export const website: LineRule = (leg) => {
  if (!leg.plan.newWeb) return undefined;
  const seen = leg.seen.website;
  if (!seen) return line(leg, 'website', false, 'The website was not looked at yet where the plan leads.', { waivable: true, about: [UNSEEN] });
  const broken = seen.faults.map(({ pages, text }) => `${pages.join(', ')} ${text}`);
  const holds = broken.length === 0;
  return line(
    leg,
    'website',
    holds,
    holds
      ? `${leg.plan.newWeb.name} answers for the domain.`
      : `Where the plan leads, the website is broken: ${broken.slice(0, 2).join('; ')}${broken.length > 2 ? `; and ${broken.length - 2} more` : ''}.`,
    {
      seenAt: seen.at,
      waivable: true,
      about: broken,
    },
  );
};
