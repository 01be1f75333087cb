import { CheckedWeb } from '../host';
import { Ruling } from '../ruling';
import { Fix, fixedTo } from '../fix';
import { addressesFor } from '../toNewWeb';
import { Name } from '../../dns/name';
import { TYPE_CODES } from '../../dns/typeNames';
import { isLead } from '../leads';
import { BY_HAND } from '../ledgerRow';
import { Check, CheckInput, remark } from './check';
import { plannedZone } from './plannedZone';

/** A name that leads to the old web host, and in the plan leads nowhere: as where the new one names an alias target only, and none can stand there (RFC 1034 §3.6.2). */
export const leadsNowhere: Check = (input) => {
  const addresses = new Set(input.oldWeb.flatMap((host) => host.addresses));
  const aliases = input.oldWeb.flatMap((host) => (host.aliasTarget ? [host.aliasTarget.toLowerCase()] : []));
  const told = new Set<string>();
  return input.rulings.flatMap((ruling) => {
    const owner = ruling.owner.toLowerCase();
    if (ruling.planned || !ruling.found || !isLead(ruling.type) || ruling.reason === BY_HAND || told.has(owner)) return [];
    if (!ruling.found.data.some((data) => addresses.has(data) || aliases.includes(data.toLowerCase()))) return [];
    const name = Name.parse(ruling.owner);
    const asked = [TYPE_CODES.A, TYPE_CODES.AAAA].map((type) => plannedZone(input).ask(name, type));
    // Below a cut another zone answers.
    if (asked.some((one) => one.answers.length > 0 || one.referral !== undefined)) return [];
    told.add(owner);
    return [
      remark(ruling, 'stop', 'leads-nowhere', 'This name leads to the website, and nowhere in the plan: give it the addresses of the new web host.', [
        input.newWeb && led(input, ruling, input.newWeb),
      ]),
    ];
  });
};

function led({ zone, rulings, apexAlias }: CheckInput, { owner, type }: Ruling, newWeb: CheckedWeb): Fix | undefined {
  const text = `Lead it to ${newWeb.name}.`;
  if (type === 'CNAME' && newWeb.aliasTarget) return { text, rows: [fixedTo(rulings, owner, type, [newWeb.aliasTarget])] };
  const families = (['A', 'AAAA'] as const).filter((one) => addressesFor(newWeb, one).length > 0);
  if (families.length > 0) return { text, rows: families.map((one) => fixedTo(rulings, owner, one, addressesFor(newWeb, one))) };
  const isApex = Name.parse(owner).equals(zone);
  const beside = rulings.some((row) => row.planned && row.owner.toLowerCase() === owner.toLowerCase());
  if (!newWeb.aliasTarget || (isApex ? !apexAlias.takes : beside)) return undefined;
  return { text, rows: [fixedTo(rulings, owner, 'CNAME', [newWeb.aliasTarget])] };
}
