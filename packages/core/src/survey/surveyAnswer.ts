import { RCODE } from '../dns/codes';
import { Message } from '../dns/message';
import { Name } from '../dns/name';
import { RRset, ResourceRecord, groupRecords } from '../dns/record';
import { TYPE_CODES } from '../dns/typeNames';

export interface SurveyQuestion {
  readonly name: Name;
  readonly type: number;
}

/** The part of an answer that is looked at. */
export type SurveyAnswer = Pick<Message, 'rcode' | 'authoritative' | 'answers' | 'authorities' | 'additionals'>;

/**
 * True where an answer says that a name does not exist. With an alias the code is about what it leads to (RFC 6604 §2):
 * the alias itself is there.
 */
export function denies(answer: SurveyAnswer, name: Name): boolean {
  const leadsOn = (record: ResourceRecord): boolean =>
    (record.type === TYPE_CODES.CNAME && record.owner.equals(name)) || (record.type === TYPE_CODES.DNAME && name.isBelow(record.owner));
  return answer.rcode === RCODE.NXDOMAIN && !answer.answers.some(leadsOn);
}

/** The sets of an answer that stand at a name, class IN. */
export function setsAt(name: Name, answer: SurveyAnswer): RRset[] {
  return groupRecords(answer.answers.filter((record: ResourceRecord) => record.owner.equals(name) && record.cls === 1 && record.type !== TYPE_CODES.RRSIG));
}
