import { Name } from '../../dns/name';
import { namesIn } from '../../dns/rdata';
import { rrsetRead } from '../../dns/record';
import { Check, Remark, remark } from './check';

/** Zones of their own below this one: each nameserver inside of it needs its address here (RFC 1034 §4.2.1), a signed one its DS (RFC 4035 §2.4), and what else stands below the cut is answered by nobody. */
export const subzone: Check = ({ zone, rulings }) => {
  const cuts = rulings
    .filter((row) => row.type === 'NS' && row.planned && !Name.parse(row.owner).equals(zone))
    .map((row) => ({ row, name: Name.parse(row.owner) }));
  if (cuts.length === 0) return [];
  const addresses = new Set(rulings.filter((row) => row.planned && (row.type === 'A' || row.type === 'AAAA')).map((row) => row.owner.toLowerCase()));
  const servers = new Set<string>();
  const remarks = cuts.flatMap(({ row, name }): Remark[] => {
    const set = rrsetRead(row.planned!);
    const inside = set.data.flatMap((data) => namesIn(set.type, data)).filter((target) => target.isAtOrBelow(name));
    for (const target of inside) servers.add(target.toString().toLowerCase());
    const bare = inside.filter((target) => !addresses.has(target.toString().toLowerCase()));
    const lost = rulings.find((one) => one.type === 'DS' && !one.planned && one.owner.toLowerCase() === row.owner.toLowerCase());
    return [
      ...(bare.length > 0
        ? [remark(row, 'stop', 'no-glue', `${bare[0]!.toString()} lies inside the delegated zone, and has no address here: nobody finds it.`)]
        : []),
      ...(lost ? [remark(lost, 'look', 'ds-lost', 'The subzone is signed, and its DS is dropped: it is not validated any more.')] : []),
    ];
  });
  const below = rulings.flatMap((row): Remark[] => {
    if (!row.planned) return [];
    const owner = Name.parse(row.owner);
    const cut = cuts.find(({ name }) => owner.isBelow(name) || (owner.equals(name) && !['NS', 'DS'].includes(row.type)));
    if (!cut || ((row.type === 'A' || row.type === 'AAAA') && servers.has(row.owner.toLowerCase()))) return [];
    return [remark(row, 'look', 'below-cut', `${cut.name.toString()} is delegated: what stands here at or below it is answered by nobody.`)];
  });
  return [...remarks, ...below];
};
