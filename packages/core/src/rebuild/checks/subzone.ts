import { Fix, FixedRow, fixedAsFound, fixedAway, rowAt } from '../fix';
import { Name } from '../../dns/name';
import { namesIn } from '../../dns/rdata';
import { rrsetRead } from '../../dns/record';
import { Ruling, isHostsOwn } from '../ruling';
import { Check, Remark, remark } from './check';

/** Zones of their own below this one: each nameserver inside of it needs its address here (RFC 1034 §4.2.1), a signed one its DS (RFC 4035 §2.4), and what else stands below the cut is answered by nobody. */
export const subzone: Check = ({ zone, rulings }) => {
  const cuts = rulings
    .filter((row) => row.type === 'NS' && row.planned && !Name.parse(row.owner).equals(zone))
    .map((row) => ({ row, name: Name.parse(row.owner) }));
  const gone = rulings.flatMap((row): Remark[] =>
    row.type === 'NS' && row.found && !row.planned && !isHostsOwn(row)
      ? [
          remark(row, 'look', 'subzone-gone', 'This zone of its own is not delegated any more: every name in it goes.', [
            { text: 'Keep it.', rows: [fixedAsFound(row)!] },
          ]),
        ]
      : [],
  );
  if (cuts.length === 0) return gone;
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
        ? [
            remark(row, 'stop', 'no-glue', `${bare[0]!.toString()} lies inside the delegated zone, and has no address here: nobody finds it.`, [
              glueAsFound(rulings, bare),
            ]),
          ]
        : []),
      ...(lost
        ? [
            remark(lost, 'look', 'ds-lost', 'The subzone is signed, and its DS is left out: it is not validated any more.', [
              { text: 'Keep it.', rows: [fixedAsFound(lost)!] },
            ]),
          ]
        : []),
    ];
  });
  const below = rulings.flatMap((row): Remark[] => {
    if (!row.planned) return [];
    const owner = Name.parse(row.owner);
    const cut = cuts.find(({ name }) => owner.isBelow(name) || (owner.equals(name) && !['NS', 'DS'].includes(row.type)));
    if (!cut || ((row.type === 'A' || row.type === 'AAAA') && servers.has(row.owner.toLowerCase()))) return [];
    return [
      remark(row, 'look', 'below-cut', `${cut.name.toString()} is delegated: what stands here at or below it is answered by nobody.`, [
        { text: 'Take it out.', rows: [fixedAway(row)] },
      ]),
    ];
  });
  return [...gone, ...remarks, ...below];
};

/** The addresses of the subzone's servers as they were found; undefined where some has none. */
function glueAsFound(rulings: readonly Ruling[], bare: readonly Name[]): Fix | undefined {
  const rows = bare.map((server) => (['A', 'AAAA'] as const).flatMap((type) => fixedIfFound(rowAt(rulings, server.toString(), type))));
  return rows.every((one) => one.length > 0) ? { text: 'Keep its address.', rows: rows.flat() } : undefined;
}

function fixedIfFound(row: Ruling | undefined): readonly FixedRow[] {
  const fixed = row && fixedAsFound(row);
  return fixed ? [fixed] : [];
}
