import { Name } from '../dns/name';
import { RRset, rrsetRead, sameData } from '../dns/record';
import { TYPE_CODES, typeCode } from '../dns/typeNames';
import { parseRdata, printRdata } from '../dns/rdata';
import { ZoneAnswers } from '../dns/zoneAnswers';
import { clearedSets } from '../hosts/needs';
import { rebuildsZone } from '../move/account';
import { AnsweredRow, Front, answeredRows, isFrontAnswer } from '../move/fronted';
import { AnswerSight, ZoneSight } from '../move/seen';
import { LegPlan, SetKey, keyOf, keyOfRow, ownerOf, typeOf } from '../move/plan';
import { MADE_BY_SIGNING } from '../rebuild/hostsOwn';
import { isChanging, isHostsOwn } from '../rebuild/ruling';

/** What the plan would answer to each question, once it is served; asked as a server is asked, so that wildcards and cuts count. */
export class Wanted {
  private readonly byKey = new Map<SetKey, readonly string[] | undefined>();
  private readonly differing = new WeakMap<object, readonly SetKey[]>();
  private readonly apex: SetKey;
  /** Rows by set: of what else stands at a host the plan says nothing. */
  private readonly ruled: ReadonlyMap<SetKey, AnsweredRow>;
  /** What is planned at a name is what is answered there: no cut and no DNAME lies in between. */
  private readonly plain: boolean;
  /** What is left of a set once a temporary value of it is gone. */
  private readonly cleared: ReadonlyMap<SetKey, readonly string[]>;
  private zone: ZoneAnswers | undefined;

  constructor(private readonly plan: WantedPlan) {
    // Where records change in place, the rest of the zone is other people's.
    const says = (row: AnsweredRow): boolean => (rebuildsZone(plan) ? !isHostsOwn(row) : isChanging(row));
    const rows = answeredRows(plan);
    this.ruled = new Map(rows.filter(says).map((ruling) => [keyOfRow(ruling), ruling]));
    this.cleared = clearedSets(plan);
    this.apex = keyOf(plan.zone, TYPE_CODES.NS);
    const bends = (ruling: AnsweredRow): boolean =>
      ruling.planned !== undefined && (ruling.type === 'DNAME' || (ruling.type === 'NS' && keyOfRow(ruling) !== this.apex));
    this.plain = !rows.some(bends);
  }

  /** The planned zone, to be asked; made when it is first needed. */
  get answers(): ZoneAnswers {
    return (this.zone ??= new ZoneAnswers(this.plan.zone, wantedSets(this.plan)));
  }

  /** Data in presentation form, sorted; empty where the plan denies it; undefined where the question is not the plan's to answer. */
  data(key: SetKey): readonly string[] | undefined {
    if (!this.byKey.has(key)) this.byKey.set(key, this.work(key));
    return this.byKey.get(key);
  }

  /** What a host answers in the place of this set by the plan; undefined where it answers as it is stored. */
  front(key: SetKey): Front | undefined {
    return this.ruled.get(key)?.front;
  }

  /** False for what a cut hands on to the servers of another zone. */
  isOwn(key: SetKey): boolean {
    return this.plain || this.answers.ask(Name.parse(ownerOf(key)), typeCode(typeOf(key))!).referral === undefined;
  }

  /** True where an answer is as the plan has it; undefined where the plan has no word in it. */
  is(key: SetKey, { data }: AnswerSight): boolean | undefined {
    const front = this.front(key);
    if (front) return isFrontAnswer(front, data) || (front.stored !== undefined && sameTexts(key, [...front.stored].sort(), data));
    const left = this.cleared.get(key);
    if (left && sameTexts(key, [...left].sort(), data)) return true;
    const wanted = this.data(key);
    return wanted && sameTexts(key, wanted, data);
  }

  /** The sets of an answer that are otherwise than planned. What a server answered is looked at again at each look, and stays the same for weeks. */
  otherwise({ sets }: Pick<ZoneSight, 'sets'>): readonly SetKey[] {
    let keys = this.differing.get(sets);
    if (!keys) this.differing.set(sets, (keys = Object.keys(sets).filter((key) => this.is(key, sets[key]!) === false)));
    return keys;
  }

  private work(key: SetKey): readonly string[] | undefined {
    const type = typeCode(typeOf(key));
    if (type === undefined || !this.ruled.has(key) || key === this.apex || type === TYPE_CODES.SOA || MADE_BY_SIGNING.has(type)) return undefined;
    const planned = this.ruled.get(key)?.planned;
    if (planned && this.plain) return [...planned.data].sort();
    const owner = Name.parse(ownerOf(key));
    const answer = this.answers.ask(owner, type);
    if (answer.referral) {
      // Of a cut its NS set and glue are told in the referral; what else stands there is another zone's.
      const told = [answer.referral, ...answer.glue].find((set) => set.type === type && set.owner.equals(owner));
      return told && textsOf(told);
    }
    const own = answer.answers.find((set) => set.type === type && set.owner.equals(owner));
    return own ? textsOf(own) : [];
  }
}

/** What of a plan its answers follow from. */
export type WantedPlan = Parameters<typeof answeredRows>[0] & Pick<LegPlan, 'newNameservers' | 'met' | 'cleared' | 'account'>;

/** The sets of the plan as they are answered, with the apex NS set that the new host serves. TTLs as planned for good. */
function wantedSets(plan: WantedPlan): RRset[] {
  const sets = answeredRows(plan).flatMap((ruling) => (ruling.planned && !isHostsOwn(ruling) ? [rrsetRead(ruling.planned)] : []));
  return [...sets, { owner: plan.zone, type: TYPE_CODES.NS, ttl: 0, data: plan.newNameservers.map((name) => parseRdata(TYPE_CODES.NS, name)) }];
}

export function textsOf(set: Pick<RRset, 'type' | 'data'>): string[] {
  return set.data.map((data) => printRdata(set.type, data)).sort();
}

/** Types whose text, as it is printed, is the same for the same data and for no other. */
const PLAIN: ReadonlySet<string> = new Set(['A', 'AAAA', 'TXT', 'CAA', 'TLSA', 'SSHFP', 'DS', 'OPENPGPKEY']);

/** The same data, letter case of names aside; both sorted. */
export function sameTexts(key: SetKey, a: readonly string[], b: readonly string[]): boolean {
  if (a.length !== b.length) return false;
  if (a.every((text, index) => text === b[index])) return true;
  const mnemonic = typeOf(key);
  if (PLAIN.has(mnemonic)) return false;
  const type = typeCode(mnemonic)!;
  const octets = (all: readonly string[]): Uint8Array[] => all.map((text) => parseRdata(type, text));
  return sameData(type, octets(a), octets(b));
}
