import { Check, CheckInput, remark } from './check';
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
  return follows ? [] : [remark(behind, 'look', 'one-spelling', `This stays at the old host while ${moves(apex) ? 'the apex' : 'www'} moves.`)];
};

function webAt({ zone, rulings }: CheckInput, label: '@' | 'www'): Ruling[] {
  const owner = (label === '@' ? zone : zone.child(label)).toString().toLowerCase();
  return rulings.filter((ruling) => ruling.owner.toLowerCase() === owner && isLead(ruling.type));
}
