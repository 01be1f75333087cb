import { addressesInstead } from '../toNewWeb';
import { Name } from '../../dns/name';
import { Check, remark } from './check';

/** RFC 1912 §2.4: the apex has SOA and NS, so it cannot be an alias. */
export const aliasAtApex: Check = ({ zone, rulings, newWeb }) =>
  rulings
    .filter((ruling) => ruling.type === 'CNAME' && ruling.planned && Name.parse(ruling.owner).equals(zone))
    .map((ruling) =>
      remark(ruling, 'stop', 'alias-at-apex', 'The apex cannot be an alias; use addresses.', [newWeb && addressesInstead(rulings, ruling, newWeb)]),
    );
