import { ByteReader } from '../dns/bytes';
import { readTypeBits } from '../dns/typeBits';
import { Name } from '../dns/name';
import { RRset, ResourceRecord, groupRecords } from '../dns/record';
import { TYPE_CODES } from '../dns/typeNames';
import { SurveyAnswer, SurveyQuestion } from './surveyAnswer';

/** An owner of a signed zone and the types that stand there (RFC 4034 §4). */
export interface WalkedName {
  readonly name: Name;
  readonly types: readonly number[];
}

/** The most owners that a walk takes; a chain may be made to have no end. */
const LIMIT = 200_000;

/**
 * Follows the NSEC chain of a zone from the apex round to the apex (RFC 4034 §4.1.1, RFC 5155 §1.1 on why that is
 * possible). One question at a time; asking is somebody else's, with the DO bit.
 */
export class NsecWalk {
  readonly names: WalkedName[] = [];
  private current: Name;
  private second = false;
  private ended: { readonly closed: boolean; readonly problem: string | undefined } | undefined;

  constructor(readonly zone: Name) {
    this.current = zone;
  }

  /** The next question; undefined where the walk is over. */
  next(): SurveyQuestion | undefined {
    if (this.ended) return undefined;
    // At a delegation a server may refer instead of giving the NSEC record; then the record that covers the name after
    // everything below it is the one.
    return this.second ? { name: afterAllBelow(this.current), type: TYPE_CODES.A } : { name: this.current, type: TYPE_CODES.NSEC };
  }

  /** True where the chain came back to the apex: every owner is known. */
  get closed(): boolean {
    return this.ended?.closed ?? false;
  }

  /** Why the walk could not be finished, in words. */
  get problem(): string | undefined {
    return this.ended?.problem;
  }

  take(answer: SurveyAnswer | undefined): void {
    if (this.ended) return;
    const record = answer && [...answer.answers, ...answer.authorities].find((one) => one.type === TYPE_CODES.NSEC && one.owner.equals(this.current));
    if (!record) {
      if (this.second || !answer || this.current.equals(this.zone)) return this.end(this.refusal(answer));
      this.second = true;
      return;
    }
    this.second = false;
    const reader = new ByteReader(record.data);
    const next = Name.read(reader);
    const types = readTypeBits(reader);
    if (isMinimal(this.current, next)) return this.end('The server makes up denials for each question (RFC 4470, RFC 9824): its chain cannot be walked.');
    this.names.push({ name: this.current, types });
    if (next.equals(this.zone)) {
      this.ended = { closed: true, problem: undefined };
      return;
    }
    if (!next.isBelow(this.zone) || next.compare(this.current) <= 0) return this.end(`The NSEC record of ${this.current.toString()} does not lead on.`);
    if (this.names.length >= LIMIT) return this.end(`The chain has more than ${LIMIT} names.`);
    this.current = next;
  }

  private refusal(answer: SurveyAnswer | undefined): string {
    if (!answer) return `The server did not answer for ${this.current.toString()}.`;
    if (!this.current.equals(this.zone)) return `The server gave no NSEC record for ${this.current.toString()}.`;
    return answer.authorities.some((record) => record.type === TYPE_CODES.NSEC3)
      ? 'The zone is signed with NSEC3, which hides names.'
      : 'The zone has no NSEC records.';
  }

  private end(problem: string): void {
    this.ended = { closed: false, problem };
  }

  /** What has to be asked for the sets themselves: every type of every name, the chain and its signatures aside. */
  questions(): SurveyQuestion[] {
    return this.names.flatMap(({ name, types }) => types.filter((type) => !MADE_BY_SIGNER.has(type)).map((type) => ({ name, type })));
  }

  /** The sets that an answer to one of `questions` gives; a referral gives a delegation and its glue. */
  setsIn(question: SurveyQuestion, answer: SurveyAnswer): RRset[] {
    const cut = question.type === TYPE_CODES.NS && !question.name.equals(this.zone);
    const glue = (record: ResourceRecord): boolean =>
      cut && (record.type === TYPE_CODES.A || record.type === TYPE_CODES.AAAA) && record.owner.isAtOrBelow(question.name);
    return groupRecords([
      ...[...answer.answers, ...(cut ? answer.authorities : [])].filter((record) => record.owner.equals(question.name) && record.type === question.type),
      ...answer.additionals.filter(glue),
    ]);
  }
}

/** The chain itself and what signs it; a new signer makes its own. */
const MADE_BY_SIGNER: ReadonlySet<number> = new Set([TYPE_CODES.RRSIG, TYPE_CODES.NSEC]);

/** The first name in canonical order behind everything below `name`: its first label with an octet 0 added, where one fits. */
function afterAllBelow(name: Name): Name {
  const [first, ...rest] = name.labels as [Uint8Array, ...Uint8Array[]];
  if (first.length < 63 && name.size < 255) return Name.fromLabels([Uint8Array.from([...first, 0]), ...rest]);
  const last = first[first.length - 1]!;
  return Name.fromLabels([Uint8Array.from([...first.subarray(0, -1), Math.min(255, last + 1)]), ...rest]);
}

/** True if the next name is the very next one that could exist: an NSEC record made for the question. */
function isMinimal(name: Name, next: Name): boolean {
  return next.size === name.size + 2 && next.labels[0]!.length === 1 && next.labels[0]![0] === 0 && next.parent.equals(name);
}
