import { astray } from './records/astray';
import { asBefore, leftBeside, notThere } from './records/leftBeside';
import { nameAppended, appendedOwner } from './records/nameAppended';
import { oneSpelling } from './records/oneSpelling';
import { TYPES_TAKEN_INSTEAD, otherType } from './records/otherType';
import { priorityInside } from './records/priorityInside';
import { quotesStored } from './records/quotesStored';
import { RecordSlip, RecordSlipFound, WrongSet } from './records/slip';
import { targetZone } from './records/targetZone';
import { textCut } from './records/textCut';
import { frontedAlready, misspeltValue, valueOfAnother } from './records/wrongValue';

/** In this order: what explains most closely comes first. */
const SLIPS: readonly RecordSlip[] = [
  nameAppended,
  otherType,
  quotesStored,
  textCut,
  priorityInside,
  targetZone,
  frontedAlready,
  leftBeside,
  oneSpelling,
  astray,
  asBefore,
  valueOfAnother,
  misspeltValue,
  notThere,
];

/**
 * The slip that explains why a set is not served as planned, with what to change; undefined where none does. One function for what
 * is read back and what is checked before it is saved.
 *
 *     recordSlip({ zone: 'choir.example.', owner: 'www.choir.example.', type: 'CNAME', planned: ['edge.thornwick.example.'],
 *       served: ['edge.thornwick.example.choir.example.'], … })  // { code: 'target gained the zone', … }
 */
export function recordSlip(wrong: WrongSet): RecordSlipFound | undefined {
  for (const slip of SLIPS) {
    const found = slip(wrong);
    if (found) return found;
  }
  return undefined;
}

/** What is asked besides of a set that is not there, to see where it stands instead: by owner and type. */
export function askedInstead({ owner, type, zone }: Pick<WrongSet, 'owner' | 'type' | 'zone'>): { readonly owner: string; readonly type: string }[] {
  return [{ owner: appendedOwner(owner, zone), type }, ...TYPES_TAKEN_INSTEAD.filter((one) => one !== type).map((one) => ({ owner, type: one }))];
}
