import { fixedAway } from '../fix';
import { movingNames } from '../leads';
import { Check, remark } from './check';

/** TLSA pins the certificate of a service; where its host moves, the certificate is another (RFC 6698 §3): who checks it finds it forged. */
export const tlsaMoves: Check = ({ rulings }) => {
  const moving = movingNames(rulings);
  return rulings.flatMap((ruling) => {
    if (ruling.type !== 'TLSA' || ruling.ruling !== 'carry') return [];
    const host = /^_\d+\._(?:tcp|udp|sctp)\.(.+)$/i.exec(ruling.owner)?.[1]?.toLowerCase();
    return host !== undefined && moving.has(host)
      ? [
          remark(
            ruling,
            'look',
            'tlsa-moves',
            `It pins the certificate of ${host.replace(/\.$/, '')}, which moves: replace it with the new one’s, or leave it out.`,
            [{ text: 'Take it out.', rows: [fixedAway(ruling)] }],
          ),
        ]
      : [];
  });
};
