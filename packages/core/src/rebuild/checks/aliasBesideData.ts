import { Check, remark } from './check';

/** RFC 1034 §3.6.2: where a CNAME stands, nothing else may stand; RFC 2181 §10.1: and only one of it. */
export const aliasBesideData: Check = ({ rulings }) =>
  rulings.flatMap((ruling) => {
    if (ruling.type !== 'CNAME' || !ruling.planned) return [];
    const beside = rulings.filter((other) => other !== ruling && other.planned && other.owner.toLowerCase() === ruling.owner.toLowerCase());
    const found =
      beside.length > 0 ? [remark(ruling, 'stop', 'alias-beside-data', `An alias cannot stand beside ${beside.map((other) => other.type).join(', ')}.`)] : [];
    if (ruling.planned.data.length > 1) found.push(remark(ruling, 'stop', 'alias-twice', 'A name can have one alias only.'));
    return found;
  });
