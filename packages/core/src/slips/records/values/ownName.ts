import { ValueSlip, shown } from '../slip';
import { hasTarget } from '../typedValue';

/** The client's own name stands as the target in the place of the host's. */
export const ownName: ValueSlip = ({ is, was, type, wrong: { zone, owner, rows } }) => {
  if (!hasTarget(type)) return undefined;
  const [here, own] = [is.toLowerCase(), shown(zone).toLowerCase()];
  if (was.toLowerCase().endsWith(`.${own}`) || (here !== own && !here.endsWith(`.${own}`))) return undefined;
  // The beginning of the target with the domain behind it: the panel put it there.
  if (here !== own && was.toLowerCase().startsWith(`${here.slice(0, -own.length - 1)}.`)) return undefined;
  if (here === shown(owner).toLowerCase()) return { code: 'own name', cost: 1.2, text: `It leads to itself: the target is ${was}.` };
  // A name of the zone that holds nothing is as likely a slip of the panel's; what it is, is told all the same.
  const known = here === own || here === `www.${own}` || rows.some((row) => shown(row.owner).toLowerCase() === here);
  return known ? { code: 'own name', cost: 1.4, text: `${is} is a name of the client’s own domain: the target is ${was}.` } : undefined;
};
