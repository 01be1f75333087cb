import { Fix, FixedRow, fixedAway, fixedTo } from '../fix';
import { Check, CheckInput, remark } from './check';
import { addressesFor } from '../toNewWeb';
import { isLead } from '../leads';
import { Ruling } from '../ruling';

/** One of the two spellings of the website moves and the other stays behind. */
export const apexAndWww: Check = (input) => {
  const apex = webAt(input, '@');
  const www = webAt(input, 'www');
  if (apex.length === 0 || www.length === 0) return [];
  const moves = (all: readonly Ruling[]): boolean => all.some((ruling) => ruling.ruling !== 'carry');
  if (moves(apex) === moves(www)) return [];
  const behind = moves(apex) ? www[0]! : apex[0]!;
  const follows = behind.type === 'CNAME' && behind.planned?.data.some((target) => apex.some((ruling) => ruling.owner.toLowerCase() === target.toLowerCase()));
  return follows
    ? []
    : [
        remark(behind, 'look', 'one-spelling', `This stays at the old host while ${moves(apex) ? 'the domain itself' : 'www'} moves.`, [
          along(input, moves(apex) ? www : apex, moves(apex) ? apex : www),
        ]),
      ];
};

function webAt({ zone, rulings }: CheckInput, label: '@' | 'www'): Ruling[] {
  const owner = (label === '@' ? zone : zone.child(label)).toString().toLowerCase();
  return rulings.filter((ruling) => ruling.owner.toLowerCase() === owner && isLead(ruling.type));
}

/** The spelling that stays goes where the other one does; undefined where that is an alias and the apex would have to be one. */
function along({ zone, rulings, newWeb }: CheckInput, behind: readonly Ruling[], moving: readonly Ruling[]): Fix | undefined {
  const led = moving.filter((row) => row.planned).map(({ type, planned }) => ({ type, data: planned!.data }));
  const addresses = (['A', 'AAAA'] as const).flatMap((type) =>
    newWeb && addressesFor(newWeb, type).length > 0 ? [{ type, data: addressesFor(newWeb, type) }] : [],
  );
  const { owner } = behind[0]!;
  // The apex holds more data always (SOA and NS), and an alias stands alone.
  const mayAlias =
    owner.toLowerCase() !== zone.toString().toLowerCase() &&
    rulings.every((row) => !row.planned || row.owner.toLowerCase() !== owner.toLowerCase() || isLead(row.type));
  const wanted = led.some(({ type }) => type === 'CNAME') && !mayAlias ? addresses : led;
  if (wanted.length === 0) return undefined;
  const rows: FixedRow[] = [
    ...behind.filter((row) => row.planned && !wanted.some(({ type }) => type === row.type)).map(fixedAway),
    ...wanted.map(({ type, data }) => fixedTo(rulings, owner, type, data)),
  ];
  return { text: `Lead it where ${moving[0]!.owner.replace(/\.$/, '')} goes.`, rows };
}
