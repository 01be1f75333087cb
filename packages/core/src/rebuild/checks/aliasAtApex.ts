import { addressesInstead } from '../toNewWeb';
import { Name } from '../../dns/name';
import { Check, remark } from './check';

/** RFC 1912 §2.4: the apex has SOA and NS, so it cannot be an alias; some hosts take one and answer as addresses what it leads to. */
export const aliasAtApex: Check = ({ zone, rulings, newWeb, apexAlias: { host, takes, known } }) =>
  takes
    ? []
    : rulings
        .filter((ruling) => ruling.type === 'CNAME' && ruling.planned && Name.parse(ruling.owner).equals(zone))
        .map((ruling) =>
          remark(
            ruling,
            'stop',
            'alias-at-apex',
            known
              ? `The domain itself cannot be an alias, and ${host} has nothing that takes its place; use addresses.`
              : `The domain itself cannot be an alias. Whether ${host} takes one, and answers with the addresses behind it, is not known: say so at its page, or use addresses.`,
            [newWeb && addressesInstead(rulings, ruling, newWeb)],
          ),
        );
