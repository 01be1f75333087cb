import { fixedTo } from '../fix';
import { rrsetRead } from '../../dns/record';
import { meaningsOf } from '../../survey/purpose';
import { Check, remark } from './check';

/** A proof of ownership that is left behind: whoever asked for it may ask again. */
export const proofGone: Check = ({ zone, rulings }) =>
  rulings.flatMap((ruling) => {
    const { found, planned, type } = ruling;
    if (type !== 'TXT' || !found) return [];
    const lost = found.data.filter((data) => !planned?.data.includes(data));
    if (lost.length === 0) return [];
    const proofs = lost.filter((data) => {
      const set = rrsetRead({ ...found, data: [data] });
      return meaningsOf(zone, [set]).get(set)!.purpose === 'verification';
    });
    return proofs.length > 0
      ? [
          remark(ruling, 'look', 'proof-gone', `${proofs[0]!.slice(0, 60)} looks like a proof of ownership, and goes: is it still asked for?`, [
            { text: 'Keep it.', rows: [fixedTo(rulings, ruling.owner, 'TXT', [...(planned?.data ?? []), ...proofs])] },
          ]),
        ]
      : [];
  });
