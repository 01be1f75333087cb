import { Message, Name, TYPE_CODES, parseRdata } from '@wanderon/core';
import { answerIn } from './askZone';

const ZONE = Name.parse('zone.test.');
const WWW = Name.parse('www.zone.test.');
const message = (more: Partial<Message>): Message =>
  ({ rcode: 0, authoritative: true, answers: [], authorities: [], additionals: [], ...more }) as unknown as Message;
const soa = { owner: ZONE, type: TYPE_CODES.SOA, cls: 1, ttl: 900, data: parseRdata(TYPE_CODES.SOA, 'ns.zone.test. host.zone.test. 1 2 3 4 60') };

describe('what a server answers of one set', () => {
  it.each<[string, Partial<Message>, object | undefined]>([
    ['a denial with its SOA, which is remembered for the less of its two times', { authorities: [soa] }, { ttl: 60, data: [] }],
    ['a denial without an SOA, which is not remembered', {}, { ttl: 0, data: [] }],
    ['a denial of the name without an SOA', { rcode: 3 }, { ttl: 0, data: [] }],
    ['nothing, without authority', { authoritative: false }, undefined],
    ['an error', { rcode: 2 }, undefined],
    ['data of another name', { answers: [{ ...soa, owner: ZONE }] }, undefined],
  ])('%s', (_what, more, expected) => {
    expect(answerIn(message(more), ZONE, WWW, TYPE_CODES.A)).toEqual(expected);
  });
});
