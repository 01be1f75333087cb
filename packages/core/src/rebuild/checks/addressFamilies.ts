import { fixedAway } from '../fix';
import { toNewWeb } from '../toNewWeb';
import { Check, remark } from './check';

/** IPv4 is repointed while IPv6 of the same name stays, or the reverse. */
export const addressFamilies: Check = ({ rulings, newWeb }) => {
  const moving = new Set(rulings.filter((ruling) => ruling.ruling === 'repoint').map((ruling) => `${ruling.owner.toLowerCase()} ${ruling.type}`));
  return rulings.flatMap((ruling) => {
    if (ruling.ruling !== 'carry' || (ruling.type !== 'A' && ruling.type !== 'AAAA')) return [];
    const twin = ruling.type === 'A' ? 'AAAA' : 'A';
    return moving.has(`${ruling.owner.toLowerCase()} ${twin}`)
      ? [
          remark(ruling, 'look', 'other-family', `${twin} moves and ${ruling.type} does not.`, [
            newWeb && toNewWeb(rulings, ruling, () => true, newWeb),
            { text: 'Take it out.', rows: [fixedAway(ruling)] },
          ]),
        ]
      : [];
  });
};
