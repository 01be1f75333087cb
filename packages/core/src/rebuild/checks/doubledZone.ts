import { Fix, fixedAway, fixedTo } from '../fix';
import { Ruling } from '../ruling';
import { Name } from '../../dns/name';
import { namesIn } from '../../dns/rdata';
import { rrsetRead } from '../../dns/record';
import { Check, remark } from './check';

/** `www.zone.example.zone.example`: typed in full where the zone is appended. */
export const doubledZone: Check = ({ zone, rulings }) => {
  const twice = Name.fromLabels([...zone.labels, ...zone.labels]);
  const doubled = (name: Name): boolean => name.isAtOrBelow(twice);
  return rulings.flatMap((ruling) => {
    if (!ruling.planned) return [];
    const set = rrsetRead(ruling.planned);
    if (!doubled(set.owner) && !set.data.some((data) => namesIn(set.type, data).some(doubled))) return [];
    const names = [set.owner, ...set.data.flatMap((data) => namesIn(set.type, data))];
    return names
      .filter(doubled)
      .map((name) => remark(ruling, 'look', 'doubled-zone', `${name.toString()} holds the zone twice.`, [once(zone, rulings, ruling)]));
  });
};

/** The row with the zone once in each of its names; undefined where a row stands at that name already. */
function once(zone: Name, rulings: readonly Ruling[], ruling: Ruling): Fix | undefined {
  const twice = Name.fromLabels([...zone.labels, ...zone.labels])
    .toString()
    .toLowerCase();
  const short = (text: string): string =>
    text.toLowerCase() === twice || text.toLowerCase().endsWith(`.${twice}`) ? text.slice(0, text.length - zone.toString().length) : text;
  const owner = short(ruling.owner);
  const data = ruling.planned!.data.map((one) => one.split(' ').map(short).join(' '));
  const moved = owner !== ruling.owner;
  if (moved && rulings.some((row) => row.planned && row.owner.toLowerCase() === owner.toLowerCase() && (row.type === ruling.type || row.type === 'CNAME')))
    return undefined;
  return {
    text: 'Write the zone once.',
    rows: [...(moved ? [fixedAway(ruling)] : []), fixedTo(rulings, owner, ruling.type, data, ruling.planned!.ttl)],
  };
}
