import { isHostsOwn } from '../ruling';
import { Check, remark } from './check';

/** Something writes into the old zone by itself, such as proofs for certificates (RFC 8555 §8.4): at the new host it has no key yet. */
export const automation: Check = ({ rulings, leaves }) =>
  leaves === undefined
    ? []
    : rulings.flatMap((ruling) =>
        ruling.type === 'TXT' && /^_acme-challenge\./i.test(ruling.owner) && ruling.found && !isHostsOwn(ruling)
          ? [
              remark(
                ruling,
                'look',
                'automation',
                `Something proves certificates by writing here at ${leaves.name}: give it a key at the new host, or its certificates end.`,
              ),
            ]
          : [],
      );
