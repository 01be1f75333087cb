import { fixedAway, rowAt } from '../fix';
import { Check, remark } from './check';

/** RFC 1034 §3.6.2: where a CNAME stands, nothing else may stand; RFC 2181 §10.1: and only one of it. */
export const aliasBesideData: Check = ({ zone, rulings, apexAlias }) => {
  const types = new Map<string, string[]>();
  for (const { owner, type, planned } of rulings) if (planned && type === 'CNAME') types.set(owner.toLowerCase(), []);
  if (types.size > 0) for (const { owner, type, planned } of rulings) if (planned) types.get(owner.toLowerCase())?.push(type);
  return rulings.flatMap((ruling) => {
    if (ruling.type !== 'CNAME' || !ruling.planned) return [];
    // Answered as addresses, it stands beside everything but addresses.
    const isAnswered = apexAlias.takes && ruling.owner.toLowerCase() === zone.toString().toLowerCase();
    const beside = types.get(ruling.owner.toLowerCase())!.filter((type) => type !== 'CNAME' && (!isAnswered || type === 'A' || type === 'AAAA'));
    const found =
      beside.length > 0
        ? [
            remark(ruling, 'stop', 'alias-beside-data', `An alias cannot stand beside ${beside.join(', ')}.`, [
              beside.every((type) => type === 'A' || type === 'AAAA')
                ? { text: `Keep the alias, without ${beside.join(' and ')}.`, rows: beside.map((type) => fixedAway(rowAt(rulings, ruling.owner, type)!)) }
                : undefined,
              { text: 'Take the alias out.', rows: [fixedAway(ruling)] },
            ]),
          ]
        : [];
    if (ruling.planned.data.length > 1) found.push(remark(ruling, 'stop', 'alias-twice', 'A name can have one alias only.'));
    return found;
  });
};
