import { fixedAway } from '../fix';
import { movingNames } from '../leads';
import { Check, remark } from './check';

/** SSHFP holds the keys of a host; where its name leads to another one, who checks them is warned off (RFC 4255 §2.4). */
export const sshfpMoves: Check = ({ rulings }) => {
  const moving = movingNames(rulings);
  return rulings.flatMap((row) =>
    row.type === 'SSHFP' && row.ruling === 'carry' && moving.has(row.owner.toLowerCase())
      ? [
          remark(row, 'look', 'sshfp-moves', 'It holds the SSH keys of the host that this name leads to, which is another one after the move.', [
            { text: 'Take it out.', rows: [fixedAway(row)] },
          ]),
        ]
      : [],
  );
};
