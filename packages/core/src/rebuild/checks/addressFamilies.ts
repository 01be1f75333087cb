import { fixedAway } from '../fix';
import { Ruling } from '../ruling';
import { toNewWeb } from '../toNewWeb';
import { Check, remark } from './check';

/** IPv4 is repointed while IPv6 of the same name stays, or the reverse. */
export const addressFamilies: Check = ({ rulings, newWeb }) => {
  const moving = { A: ownersOf(rulings, 'A'), AAAA: ownersOf(rulings, 'AAAA') };
  return rulings.flatMap((ruling) => {
    if (ruling.ruling !== 'carry' || (ruling.type !== 'A' && ruling.type !== 'AAAA')) return [];
    const twin = ruling.type === 'A' ? 'AAAA' : 'A';
    return moving[twin].has(ruling.owner.toLowerCase())
      ? [
          remark(ruling, 'look', 'other-family', `${twin} moves and ${ruling.type} does not.`, [
            newWeb && toNewWeb(rulings, ruling, () => true, newWeb),
            { text: 'Take it out.', rows: [fixedAway(ruling)] },
          ]),
        ]
      : [];
  });
};

/** Names, in lower case, whose addresses of one family move. */
function ownersOf(rulings: readonly Ruling[], type: 'A' | 'AAAA'): ReadonlySet<string> {
  return new Set(rulings.filter((row) => row.type === type && row.ruling === 'repoint').map((row) => row.owner.toLowerCase()));
}
