import { Name } from '../dns/name';
import { parseRdata, printRdata } from '../dns/rdata';
import { sameData } from '../dns/record';
import { Front, isFrontAnswer } from '../move/fronted';

export const VERDICTS = ['old', 'new', 'mixed', 'other', 'none'] as const;
export type Verdict = (typeof VERDICTS)[number];

/** What was asked of a lookout and what came back: the data at the end of the alias chain, or nothing with its response code. */
export interface LookoutAnswer {
  readonly rcode: number;
  readonly data: readonly Uint8Array[];
}

/**
 * One answer against the old and the new set of the same name and type. An absent set is the empty set:
 * for a name that is new, no data is `old`; for one that goes, no data is `new`.
 *
 * `mixed`: some of the answer is old only and some is new only, as where several caches answer behind one address.
 */
export function verdictOf(type: number, answer: LookoutAnswer, before: readonly Uint8Array[], after: readonly Uint8Array[]): Verdict {
  if (answer.rcode !== 0 && answer.rcode !== 3) return 'none';
  if (sameData(type, answer.data, after)) return 'new';
  if (sameData(type, answer.data, before)) return 'old';
  if (answer.data.length === 0) return 'none';
  const among = (data: Uint8Array, set: readonly Uint8Array[]): boolean => set.some((one) => sameData(type, [data], [one]));
  const olds = answer.data.filter((data) => among(data, before) && !among(data, after)).length;
  const news = answer.data.filter((data) => among(data, after) && !among(data, before)).length;
  const strangers = answer.data.filter((data) => !among(data, before) && !among(data, after)).length;
  if (strangers > 0) return 'other';
  return olds > 0 && news > 0 ? 'mixed' : olds > 0 ? 'old' : 'new';
}

/** The same where a host answers with its own edge in the place of what is stored: whatever is the edge's is `new`. */
export function frontVerdict(type: number, answer: LookoutAnswer, before: readonly Uint8Array[], front: Front): Verdict {
  const texts = answer.data.map((data) => printRdata(type, data));
  const isNew =
    isFrontAnswer(front, texts) ||
    (front.stored !== undefined &&
      sameData(
        type,
        answer.data,
        front.stored.map((text) => parseRdata(type, text)),
      ));
  if (answer.rcode !== 0 && answer.rcode !== 3) return 'none';
  if (isNew) return 'new';
  if (texts.length === 0) return before.length === 0 ? 'old' : 'none';
  const verdict = verdictOf(type, answer, before, []);
  const some = texts.some((text) => (front.ranges.length > 0 || front.unlike !== undefined) && isFrontAnswer(front, [text]));
  return verdict === 'other' && some ? 'mixed' : verdict;
}

/** The verdict over several looks at one lookout within a round: differing ones make it `mixed`. */
export function combineVerdicts(verdicts: readonly Verdict[]): Verdict {
  const answered = verdicts.filter((verdict) => verdict !== 'none');
  const kinds = new Set(answered);
  if (kinds.size === 0) return 'none';
  if (kinds.size === 1) return answered[0]!;
  return kinds.has('other') ? 'other' : 'mixed';
}

/** Expected share of caches that still hold the old answer `x` seconds after the change; T: TTL, rate: questions a second. */
export function expectedOldShare(x: number, T: number, rate = Infinity): number {
  if (x >= T) return 0;
  return Math.max(0, (T - x) / (T + (rate === Infinity ? 0 : 1 / rate)));
}

/** The same names in any order, letter case and final dots aside. */
export function sameNameSet(a: readonly string[], b: readonly string[]): boolean {
  const left = new Set(a.map(nameKey));
  const right = new Set(b.map(nameKey));
  return left.size === right.size && [...left].every((key) => right.has(key));
}

/** True where a delegation to `next` would lead nowhere else than `now` does: the same names, and no address that is not there already. */
export function isSamePlace(
  now: { readonly nameservers: readonly string[]; readonly addresses: readonly string[] },
  next: { readonly nameservers: readonly string[]; readonly addresses: readonly string[] },
): boolean {
  return sameNameSet(now.nameservers, next.nameservers) && next.addresses.every((address) => now.addresses.includes(address));
}

/** A plain name is its own key; one with escapes is read first, since they can be written in several ways. */
export function nameKey(name: string): string {
  if (name.includes('\\')) return Name.parse(name).toString().toLowerCase();
  return name.endsWith('.') ? name.toLowerCase() : `${name.toLowerCase()}.`;
}
