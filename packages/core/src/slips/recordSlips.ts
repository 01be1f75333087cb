import { capital } from '../survey/words';
import { leastCost } from './leastCost';
import { aliasBeside } from './records/places/aliasBeside';
import { astray } from './records/places/astray';
import { nearOwners } from './records/places/nearOwners';
import { wildcardOver } from './records/places/wildcardOver';
import { otherName } from './records/places/otherName';
import { TYPES_TAKEN_INSTEAD, otherType } from './records/places/otherType';
import { asBefore, oneSpelling } from './records/sets/asBefore';
import { frontedAlready } from './records/sets/fronted';
import { prioritiesExchanged } from './records/sets/prioritiesExchanged';
import { textsJoined } from './records/sets/textsJoined';
import { RecordSlip, RecordSlipFound, WrongSet, shown } from './records/slip';
import { inSentence, lacking, sameValue } from './records/typedValue';
import { explainValue } from './records/values/explainValue';

/** Each explains the set as a whole; in this order. */
const WHOLE: readonly RecordSlip[] = [otherName, otherType, aliasBeside, frontedAlready, oneSpelling, asBefore, prioritiesExchanged, astray];

/** What it costs to say of a value that nothing explains it, that it is left from before, and of a planned one that it was not typed. */
const STRANGER = 3;
const LEFT = 0.5;
const MISSING = 1;

/**
 * The slips that explain why a set is not served as planned, each with what to type instead; empty where none does. Of several explanations it
 * is the one that explains all that is seen with the least. One function for what is read back and what is checked before it is saved.
 *
 *     recordSlips({ zone: 'choir.example.', owner: 'www.choir.example.', type: 'CNAME', planned: ['edge.thornwick.example.'],
 *       served: ['edge.thornwick.example.choir.example.'], … })  // [{ code: 'target gained the zone', … }]
 */
export function recordSlips(wrong: WrongSet): RecordSlipFound[] {
  for (const slip of WHOLE) {
    const found = slip(wrong);
    if (found) return [found];
  }
  return wrong.served.length === 0 ? [NOT_THERE] : byValues(wrong);
}

/** Several slips of one set, told as one. */
export interface RecordSlipsTold extends RecordSlipFound {
  /** Of all of them; `code` is the first. */
  readonly codes: readonly string[];
}

/** The same in one: its text holds a sentence for each. */
export function recordSlip(wrong: WrongSet): RecordSlipsTold | undefined {
  const found = recordSlips(wrong);
  const texts = [...new Set(found.map(({ text }) => text))];
  return found[0] && { code: found[0].code, codes: [...new Set(found.map(({ code }) => code))], text: texts.join(' ') };
}

/** Codes that say only that something is not there, or no other than before. */
export const SAYS_LITTLE: ReadonlySet<string> = new Set(['not there', 'not saved', 'value missing']);

/** Nothing is there, and nothing else explains why. */
const NOT_THERE: RecordSlipFound = { code: 'not there', text: 'It is not there: not typed, not saved, or saved under another name.' };

/** Values of one set, served or planned, of which it is asked what became of what; nobody mends more of them by hand, and a server may send thousands. */
const MOST_VALUES = 24;

/** Value by value: what is served for what is planned, what is left, and what is missing. */
function byValues(wrong: WrongSet): RecordSlipFound[] {
  const { type, planned, found } = wrong;
  const joined = textsJoined(wrong);
  const more = lacking(type, wrong.served, planned)
    .filter((data) => data !== joined?.served)
    .slice(0, MOST_VALUES);
  const missing = lacking(type, planned, wrong.served)
    .filter((data) => !joined?.planned.includes(data))
    .slice(0, MOST_VALUES);
  const isOld = (data: string): boolean => found.some((one) => sameValue(type, one, data));
  const pairs = more.map((served) => missing.map((wanted) => explainValue(wrong, served, wanted)));
  const { partners } = leastCost(
    more.length,
    missing.length,
    (i, j) => pairs[i]![j]?.cost ?? (isOld(more[i]!) ? LEFT + MISSING - 0.1 : undefined),
    (i) => (isOld(more[i]!) ? LEFT : STRANGER),
    MISSING,
  );
  const slips = more.flatMap((data, i): RecordSlipFound[] => {
    const wanted = partners[i] === undefined ? undefined : missing[partners[i]]!;
    if (wanted !== undefined) return [...(pairs[i]![partners[i]!]?.slips ?? [stillOld(data, wanted)])];
    return isOld(data) && planned.length > 0 ? [leftBeside(type, data)] : [];
  });
  const unexplained = more.filter((data, i) => partners[i] === undefined && !(isOld(data) && planned.length > 0));
  const untyped = missing.filter((_data, j) => !partners.includes(j));
  const all = [...(joined ? [joined.slip] : []), ...slips];
  // Where a value is of nobody, a planned one that is not there may be what it was meant for: no slip is claimed of either.
  if (unexplained.length > 0 && all.length === 0) return [];
  return [
    ...all,
    ...(unexplained.length === 0
      ? untyped.map((data) => ({ code: 'value missing', text: `${inSentence(shown(data))} is not there: it was not typed, or not saved.` }))
      : []),
    ...unexplained.map((data) => ({ code: 'different', text: `${inSentence(shown(data))} is not in the plan.` })),
    ...(unexplained.length > 0 ? untyped.map((data) => ({ code: 'different', text: `${inSentence(shown(data))} is not there.` })) : []),
  ];
}

const stillOld = (data: string, wanted: string): RecordSlipFound => ({
  code: 'not saved',
  text: `${inSentence(shown(data))} is as before: it is to be ${inSentence(shown(wanted))}.`,
});

function leftBeside(type: string, data: string): RecordSlipFound {
  const isAddress = type === 'A' || type === 'AAAA';
  const what = isAddress ? `the old address ${data}` : inSentence(shown(data));
  const harm = isAddress ? ', or some visitors are still led there' : type === 'MX' ? ', or some mail still goes there' : '';
  return { code: 'left beside', text: `${capital(what)} is left beside the new: take it out${harm}.` };
}

/**
 * What is asked besides of a set that is not there, to see where it stands instead: by owner and type, the most usual first.
 *
 * @param most names and types at the most; each is a question to each server
 */
export function askedInstead(
  { owner, type, zone }: Pick<WrongSet, 'owner' | 'type' | 'zone'>,
  most = Infinity,
): { readonly owner: string; readonly type: string }[] {
  const wildcard = wildcardOver(owner, zone);
  const given = wildcard === undefined ? [] : [type === 'CNAME' ? 'A' : 'CNAME', type].map((one) => ({ owner: wildcard, type: one }));
  const [appended, ...near] = nearOwners(owner, zone).map((one) => ({ owner: one.owner, type }));
  const types = TYPES_TAKEN_INSTEAD.filter((one) => one !== type).map((one) => ({ owner, type: one }));
  return [...(appended ? [appended] : []), ...types.slice(0, 3), ...given, ...near.slice(0, 3), ...types.slice(3), ...near.slice(3)].slice(0, most);
}
