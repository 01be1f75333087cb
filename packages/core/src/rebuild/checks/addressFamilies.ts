import { Check, remark } from './check';

/** IPv4 is repointed while IPv6 of the same name stays, or the reverse. */
export const addressFamilies: Check = ({ rulings }) =>
  rulings.flatMap((ruling) => {
    if (ruling.ruling !== 'carry' || (ruling.type !== 'A' && ruling.type !== 'AAAA')) return [];
    const twin = rulings.find((other) => other.owner === ruling.owner && other.type === (ruling.type === 'A' ? 'AAAA' : 'A'));
    return twin && twin.ruling === 'repoint' ? [remark(ruling, 'look', 'other-family', `${twin.type} moves and ${ruling.type} does not.`)] : [];
  });
