import { Check, remark } from './check';

/**
 * The DNS host's edge reaches the web host without TLS, and the web host sends whoever comes without it to HTTPS, which is the edge again:
 * visitors go in a circle (RFC 9110 §15.4 leaves it to them to notice).
 */
export const edgeInCircle: Check = ({ rulings, edge, newWeb }) => {
  if (edge?.how !== 'plain' || !newWeb?.forcesHttps) return [];
  const { addresses, aliasTarget, name } = newWeb;
  return rulings.flatMap((ruling) => {
    const state = edge.fronting.get(ruling.owner.toLowerCase());
    if (!ruling.planned || state === undefined || state === 'off') return [];
    const leads = ruling.planned.data.some((data) => addresses.includes(data) || data.toLowerCase() === aliasTarget?.toLowerCase());
    if (!leads) return [];
    return [
      remark(
        ruling,
        'look',
        'edge-in-circle',
        `The DNS host’s edge asks ${name} without TLS, and ${name} sends that to HTTPS: visitors may go in a circle. Have the edge use TLS.`,
      ),
    ];
  });
};
