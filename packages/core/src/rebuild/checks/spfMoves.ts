import { Name, NameError } from '../../dns/name';
import { readSpf } from '../../policy/spf';
import { movingNames } from '../leads';
import { Check, remark } from './check';
import { textsOf } from './textsAt';

/** SPF lets the address of a name send, and that name moves with the website: who sends from the old address is not let any more (RFC 7208 §5.3). */
export const spfMoves: Check = ({ rulings }) => {
  const moving = movingNames(rulings);
  if (moving.size === 0) return [];
  return rulings.flatMap((ruling) =>
    textsOf(ruling).flatMap((text) => {
      const names = (readSpf(text)?.terms ?? [])
        .filter((term) => term.kind === 'mechanism' && term.name === 'a')
        .map(({ value }) => nameOf(value, ruling.owner));
      const moved = names.find((name) => name !== undefined && moving.has(name));
      return moved
        ? [
            remark(
              ruling,
              'look',
              'spf-moves',
              `SPF lets the address of ${moved.replace(/\.$/, '')} send, and that moves with the website. If mail goes out from the old address, name that address.`,
            ),
          ]
        : [];
    }),
  );
};

function nameOf(value: string, owner: string): string | undefined {
  const name = value.replace(/\/.*$/s, '');
  if (name === '') return owner.toLowerCase();
  try {
    return name.includes('%')
      ? undefined
      : Name.parse(`${name.replace(/\.$/, '')}.`)
          .toString()
          .toLowerCase();
  } catch (error) {
    if (error instanceof NameError) return undefined;
    throw error;
  }
}
