import { Name } from '../../dns/name';
import { namesIn } from '../../dns/rdata';
import { rrsetRead } from '../../dns/record';
import { Check, remark } from './check';

/** `www.zone.example.zone.example`: typed in full where the zone is appended. */
export const doubledZone: Check = ({ zone, rulings }) => {
  const doubled = (name: Name): boolean =>
    name.isBelow(Name.fromLabels([...zone.labels, ...zone.labels])) || name.equals(Name.fromLabels([...zone.labels, ...zone.labels]));
  return rulings.flatMap((ruling) => {
    if (!ruling.planned) return [];
    const set = rrsetRead(ruling.planned);
    const names = [set.owner, ...set.data.flatMap((data) => namesIn(set.type, data))];
    return names.filter(doubled).map((name) => remark(ruling, 'look', 'doubled-zone', `${name.toString()} holds the zone twice.`));
  });
};
