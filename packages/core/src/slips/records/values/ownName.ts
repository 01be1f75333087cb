import { isIpv4, isIpv6 } from '../../../dns/address';
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

/** The domain of the host itself, or its website, stands as the target. */
export const hostsSite: ValueSlip = ({ is, was, type }) => {
  const site = is.toLowerCase().replace(/^www\./, '');
  return hasTarget(type) && site.includes('.') && was.toLowerCase().endsWith(`.${site}`) && was.split('.').length > 2
    ? { code: 'website', cost: 1.5, text: `${is} is the domain or website of the host: the target is ${was}.` }
    : undefined;
};

/** More stands in front of the name: `www.edge.host.example`. */
export const labelInFront: ValueSlip = ({ is, was, type }) =>
  hasTarget(type) && is.toLowerCase().endsWith(`.${was.toLowerCase()}`)
    ? { code: 'in front', cost: 1, text: `${is} has “${is.slice(0, -was.length - 1)}” in front of the name: it is ${was}.` }
    : undefined;

/** The last label or two are others: `edge.host.test`. */
export const otherEnding: ValueSlip = ({ is, was, type }) => {
  if (!hasTarget(type)) return undefined;
  const [here, there] = [is.toLowerCase().split('.'), was.toLowerCase().split('.')];
  const isSame = here.length === there.length && there.length > 2 && here.slice(0, -1).join() === there.slice(0, -1).join();
  const isMore = here.length === there.length + 1 && there.length > 2 && here.slice(0, -1).join() === there.join();
  return isSame || isMore ? { code: 'ending', cost: 1.2, text: `${is} ends in .${here.at(-1)}: it is ${was}.` } : undefined;
};

/** An address was typed where a name is asked for. */
export const addressAsTarget: ValueSlip = ({ is, was, type }) =>
  hasTarget(type) && (isIpv4(is) || isIpv6(is)) ? { code: 'address', cost: 1.6, text: `${is} is an address, and a name is asked for: ${was}.` } : undefined;
