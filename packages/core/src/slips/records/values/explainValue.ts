import { cheapest } from '../../leastCost';
import { RecordSlipFound, ValueSlip, WrongSet, shown } from '../slip';
import { TypedValue, hasTarget, inSentence, lastOf, sameValue, typedValue } from '../typedValue';
import { address } from './address';
import { around } from './around';
import { blanks } from './blanks';
import { cut } from './cut';
import { entities } from './entities';
import { invisible } from './invisible';
import { marks } from './marks';
import { misspelt, otherNumber } from './misspelt';
import { addressAsTarget } from './addressAsTarget';
import { hostsSite } from './hostsSite';
import { labelInFront } from './labelInFront';
import { otherEnding } from './otherEnding';
import { ownName } from './ownName';
import { textWords } from './textWords';
import { url } from './url';
import { gainedZone, targetLostZone, withoutZone } from './zoneOfTarget';

const WITHIN: readonly ValueSlip[] = [
  marks,
  entities,
  invisible,
  around,
  url,
  blanks,
  cut,
  targetLostZone,
  labelInFront,
  otherEnding,
  otherNumber,
  address,
  misspelt,
  ownName,
  hostsSite,
  addressAsTarget,
  textWords,
];
/** What may be the matter with a target besides the domain that was appended to it. */
const WITHIN_APPENDED: readonly ValueSlip[] = [marks, invisible, around, url, blanks, cut, labelInFront, otherNumber, misspelt, addressAsTarget];

export interface ExplainedValue {
  readonly slips: readonly RecordSlipFound[];
  readonly cost: number;
}

/**
 * How one planned value became the one that is served: the cheapest of the known slips, two where there are two; undefined where none explains
 * it.
 *
 *     explainValue(wrong, '10 mail.zone.example.zone.example.', '20 mail.zone.example.')
 *     // the domain was appended to the target; the priority is 10 and is to be 20
 */
export function explainValue(wrong: WrongSet, served: string, planned: string): ExplainedValue | undefined {
  const { type } = wrong;
  const [is, was] = [typedValue(type, served), typedValue(type, planned)];
  const ways = [ofAnotherRow(wrong, is, was), inOtherOrder(is, was), byFields(wrong, is, was)].filter((way) => way !== undefined);
  return cheapest(ways);
}

/** The fields each: what stands in front, and what is typed last. */
function byFields(wrong: WrongSet, is: TypedValue, was: TypedValue): ExplainedValue | undefined {
  const heads = is.fields.slice(0, -1).flatMap(({ name, text }, at) => {
    const wanted = was.fields[at]!.text;
    return text.toLowerCase() === wanted.toLowerCase() ? [] : [{ name, text, wanted }];
  });
  const last = lastOf(is) === lastOf(was) || (hasTarget(wrong.type) && lastOf(is).toLowerCase() === lastOf(was).toLowerCase());
  if (last && heads.length === 0) {
    const isText = is.fields.at(-1)!.name === 'text';
    return isText
      ? { slips: [{ code: 'text split', text: 'The text is split otherwise; readers join its parts, so that it means the same.' }], cost: 0.1 }
      : undefined;
  }
  const fields = heads.map(({ name, text, wanted }) => ({
    code: 'field',
    text: `The ${name} is ${text}: it is to be ${wanted}, in front of ${inSentence(lastOf(was))}.`,
  }));
  const within = last ? { slips: [], cost: 0 } : explainLast(wrong, lastOf(is), lastOf(was));
  if (!within) return undefined;
  // With the priority inside the value, the field for it was left as it was.
  if (within.slips.some(({ code }) => code === 'priority inside')) return within;
  return { slips: [...within.slips, ...fields], cost: within.cost + fields.length * (last ? 0.6 : 1) };
}

function explainLast(wrong: WrongSet, is: string, was: string): ExplainedValue | undefined {
  const { type, zone } = wrong;
  const ways = WITHIN.flatMap((slip) => slip({ wrong, type, is, was }) ?? []).map(single);
  const bare = hasTarget(type) ? withoutZone(is, zone) : undefined;
  if (bare !== undefined) {
    const outer = gainedZone(is, was);
    if (bare.toLowerCase() === was.toLowerCase()) ways.push({ slips: [outer], cost: 0.9 });
    else
      for (const inner of WITHIN_APPENDED.flatMap((slip) => slip({ wrong, type, is: bare, was }) ?? []))
        // Whoever typed the priority or a URL into the field has more to mend than the domain behind it.
        ways.push({ slips: [inner, outer], cost: 0.9 + inner.cost });
  }
  return cheapest(ways);
}

/** All fields are there, in other places. */
function inOtherOrder(is: TypedValue, was: TypedValue): ExplainedValue | undefined {
  const texts = ({ fields }: TypedValue): string =>
    fields
      .map(({ text }) => text.toLowerCase())
      .sort()
      .join('\n');
  if (was.fields.length < 3 || is.fields.length !== was.fields.length || texts(is) !== texts(was)) return undefined;
  const right = was.fields.map(({ name, text }) => `${name} ${inSentence(text)}`).join(', ');
  return { slips: [{ code: 'fields in another order', text: `The fields stand in another order: ${right}.` }], cost: 1 };
}

/** It is what another row of the plan is to have. */
function ofAnotherRow({ rows, owner, type }: WrongSet, is: TypedValue, was: TypedValue): ExplainedValue | undefined {
  const other = rows.find(
    (row) => row.owner.toLowerCase() !== owner.toLowerCase() && row.type === type && row.planned.some((one) => sameValue(type, one, is.data)),
  );
  if (!other) return undefined;
  const value = `${inSentence(shown(is.data))} is what ${shown(other.owner)} is to have`;
  const isNumbered = type !== 'A' && type !== 'AAAA' && withoutDigits(is.data) === withoutDigits(was.data);
  return {
    slips: [
      isNumbered
        ? { code: 'number', text: `${value}: it was copied, and the number not changed. Here it is ${inSentence(shown(was.data))}.` }
        : { code: 'value of another', text: `${value}: it is in the wrong row. Here it is ${inSentence(shown(was.data))}.` },
    ],
    cost: 0.9,
  };
}

const withoutDigits = (text: string): string => text.toLowerCase().replace(/\d+/g, '#');
const single = ({ code, text, cost }: RecordSlipFound & { readonly cost: number }): ExplainedValue => ({ slips: [{ code, text }], cost });
