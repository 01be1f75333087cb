import { inAny, ranges } from '../../dns/prefix';
import { rrsetRead } from '../../dns/record';
import { Check, remark } from './check';

/** Addresses that lead nowhere from outside: of private networks, of one machine, of a link (RFC 1918, RFC 6890, RFC 4193). */
const isInside = inAny(ranges('10.0.0.0/8 172.16.0.0/12 192.168.0.0/16 100.64.0.0/10 169.254.0.0/16 127.0.0.0/8 0.0.0.0/8 fc00::/7 fe80::/10 ::1/128'));

export const specialAddress: Check = ({ rulings, edge }) =>
  rulings.flatMap((ruling) => {
    if (!ruling.planned || (ruling.type !== 'A' && ruling.type !== 'AAAA')) return [];
    // Their data is the address itself (RFC 1035 §3.4.1, RFC 3596 §2.2).
    const at = rrsetRead(ruling.planned).data.findIndex(isInside);
    const inside = ruling.planned.data[at];
    // What stands in for names that the edge answers is asked by nobody.
    return inside && inside !== edge?.standIn ? [remark(ruling, 'look', 'special-address', `${inside} leads nowhere from outside its own network.`)] : [];
  });
