import { RecordSlip, WrongSet } from '../slip';
import { lacking } from '../typedValue';
import { nearOwners, savedAt } from './nearOwners';

/** Names that give the same above which a wildcard gives it, and nobody typed it there. */
const MOST = 2;

/** The set stands under another name than its own. */
export const otherName: RecordSlip = (wrong) => {
  const { zone, owner, type, planned, served } = wrong;
  const missing = lacking(type, planned, served);
  // What is there in part was typed under its own name.
  if (missing.length === 0 || missing.length < planned.length) return undefined;
  const found = nearOwners(owner, zone).filter((near) => holds(wrong, near.owner, missing));
  const [first] = found;
  if (first === undefined || found.length > MOST) return undefined;
  return { code: first.byPanel ?? 'other name', text: savedAt(first, owner, zone) };
};

/** It has all that is missing, and not by the plan. */
function holds({ type, elsewhere, rows }: WrongSet, near: string, missing: readonly string[]): boolean {
  const there = elsewhere(near, type);
  if (!there || lacking(type, missing, there).length > 0) return false;
  const own = rows.find((row) => row.type === type && row.owner.toLowerCase() === near.toLowerCase());
  return !own || lacking(type, missing, own.planned).length === missing.length;
}
