import { forwardsTo } from '../../hosts/dnsHabits';
import { namesIn } from '../../dns/rdata';
import { rrsetRead } from '../../dns/record';
import { Check, remark } from './check';

/** Mail or visitors are led to a service of the old DNS host that forwards them, and that ends with the zone there. */
export const forwardingEnds: Check = ({ rulings, leaves }) => {
  if (!leaves || leaves.forwards.length === 0) return [];
  const isService = forwardsTo(leaves.forwards);
  return rulings.flatMap((ruling) => {
    if (!ruling.planned) return [];
    const set = rrsetRead(ruling.planned);
    const leads = ruling.planned.data.some(isService) || set.data.some((data) => namesIn(set.type, data).some((name) => isService(name.toString())));
    if (!leads) return [];
    const what = ruling.type === 'MX' ? 'mail' : 'visitors';
    return [
      remark(
        ruling,
        'look',
        'forwarding-ends',
        `${leaves.name} forwards ${what} there as a service of its own, which ends with the zone: set it up elsewhere first.`,
      ),
    ];
  });
};
