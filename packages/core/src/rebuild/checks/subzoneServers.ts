import { Name } from '../../dns/name';
import { namesIn } from '../../dns/rdata';
import { rrsetRead } from '../../dns/record';
import { TYPE_CODES } from '../../dns/typeNames';
import { rowAt } from '../fix';
import { Check, remark } from './check';
import { plannedZone } from './plannedZone';

/** A delegated zone whose nameserver is a name of this one that is an alias (RFC 2181 §10.3), or has no address: nobody is led there. */
export const subzoneServers: Check = (input) => {
  const { zone, rulings } = input;
  return rulings.flatMap((row) => {
    if (row.type !== 'NS' || !row.planned || Name.parse(row.owner).equals(zone)) return [];
    const cut = Name.parse(row.owner);
    const set = rrsetRead(row.planned);
    // Inside of the zone that is delegated it is glue, which is told as that.
    const here = set.data.flatMap((data) => namesIn(set.type, data)).filter((target) => target.isAtOrBelow(zone) && !target.isAtOrBelow(cut));
    return here.flatMap((target) => {
      const name = target.toString().replace(/\.$/, '');
      if (rowAt(rulings, target.toString(), 'CNAME')?.planned)
        return [remark(row, 'look', 'server-alias', `${name} is an alias: a nameserver has to be a name with addresses.`)];
      const asked = [TYPE_CODES.A, TYPE_CODES.AAAA].map((type) => plannedZone(input).ask(target, type));
      const leads = asked.some((one) => one.referral !== undefined || one.answers.length > 0);
      return leads ? [] : [remark(row, 'look', 'server-gone', `${name} has no address in the plan: the delegated zone is not found by it.`)];
    });
  });
};
