import * as oracle from 'dns-packet';
import fc from 'fast-check';
import { dataOf, layoutTypes, name } from '../testing/arbitrary';
import { WireError, toHex } from './bytes';
import { decodeMessage, encodeMessage, encodeWithin, message, query, reply } from './message';
import { Name } from './name';
import { parseRdata } from './rdata';
import { ResourceRecord } from './record';
import { typeCode } from './typeNames';

const record = (owner: string, type: string, data: string, ttl = 300): ResourceRecord => ({
  owner: Name.parse(owner),
  type: typeCode(type)!,
  cls: 1,
  ttl,
  data: parseRdata(typeCode(type)!, data),
});
const anyRecord = fc
  .tuple(name, fc.constantFrom(...layoutTypes), fc.integer({ min: 0, max: 0xffffffff }))
  .chain(([owner, type, ttl]) => dataOf(type).map((data): ResourceRecord => ({ owner, type: typeCode(type)!, cls: 1, ttl, data })));
const flag = fc.boolean();
const anyMessage = fc.record({
  id: fc.nat(0xffff),
  response: flag,
  opcode: fc.nat(15),
  authoritative: flag,
  truncated: flag,
  recursionDesired: flag,
  recursionAvailable: flag,
  authenticData: flag,
  checkingDisabled: flag,
  rcode: fc.nat(15),
  questions: fc.array(fc.record({ name, type: fc.nat(0xffff), cls: fc.nat(0xffff) }), { maxLength: 2 }),
  answers: fc.array(anyRecord, { maxLength: 4 }),
  authorities: fc.array(anyRecord, { maxLength: 3 }),
  additionals: fc.array(anyRecord, { maxLength: 3 }),
});

describe('messages', () => {
  it('are the same through the wire, whatever they hold', () => {
    fc.assert(
      fc.property(anyMessage, (parts) => {
        const sent = message(parts);
        const read = decodeMessage(encodeMessage(sent));
        const plain = (records: readonly ResourceRecord[]): unknown[] =>
          records.map((one) => [one.owner.toString(), one.type, one.cls, one.ttl, toHex(one.data)]);
        expect({ ...read, questions: 0, answers: 0, authorities: 0, additionals: 0 }).toEqual({
          ...sent,
          questions: 0,
          answers: 0,
          authorities: 0,
          additionals: 0,
          edns: undefined,
          tsig: undefined,
        });
        expect(read.questions.map((one) => [one.name.toString(), one.type, one.cls])).toEqual(
          sent.questions.map((one) => [one.name.toString(), one.type, one.cls]),
        );
        for (const section of ['answers', 'authorities', 'additionals'] as const) expect(plain(read[section])).toEqual(plain(sent[section]));
      }),
      { numRuns: 150 },
    );
  });

  it('are read by dns-packet as they were meant', () => {
    const answer = reply(query(Name.parse('www.zone.example.'), 1, { id: 7, recursionDesired: true }), {
      authoritative: true,
      answers: [record('www.zone.example.', 'CNAME', 'edge.host.example.'), record('edge.host.example.', 'A', '192.0.2.9')],
      authorities: [record('zone.example.', 'MX', '10 mail.zone.example.')],
      additionals: [record('mail.zone.example.', 'AAAA', '2001:db8::25'), record('zone.example.', 'TXT', '"one" "two"')],
    });
    const read = oracle.decode(Buffer.from(encodeMessage(answer))) as oracle.Packet & { flag_aa: boolean };
    expect(read).toMatchObject({ id: 7, type: 'response', rcode: 'NOERROR', flag_aa: true, flag_rd: true });
    expect(read.questions).toMatchObject([{ name: 'www.zone.example', type: 'A', class: 'IN' }]);
    expect(read.answers).toMatchObject([
      { name: 'www.zone.example', type: 'CNAME', ttl: 300, data: 'edge.host.example' },
      { name: 'edge.host.example', type: 'A', data: '192.0.2.9' },
    ]);
    expect(read.authorities).toMatchObject([{ type: 'MX', data: { preference: 10, exchange: 'mail.zone.example' } }]);
    expect(read.additionals!.slice(0, 2)).toMatchObject([
      { type: 'AAAA', data: '2001:db8::25' },
      { type: 'TXT', data: [Buffer.from('one'), Buffer.from('two')] },
    ]);
    expect(read.additionals![2]).toMatchObject({ type: 'OPT', udpPayloadSize: 1232 });
  });

  it('written by dns-packet, compression in the data included, are read by us', () => {
    const wire = oracle.encode({
      type: 'response',
      id: 9,
      flags: oracle.AUTHORITATIVE_ANSWER,
      questions: [{ type: 'SOA', name: 'zone.example' }],
      answers: [
        {
          type: 'SOA',
          name: 'zone.example',
          ttl: 60,
          data: { mname: 'ns1.zone.example', rname: 'host.zone.example', serial: 5, refresh: 1, retry: 2, expire: 3, minimum: 4 },
        },
        { type: 'SRV', name: '_sip._tcp.zone.example', ttl: 60, data: { priority: 1, weight: 2, port: 3, target: 'voice.zone.example' } },
        { type: 'CAA', name: 'zone.example', ttl: 60, data: { flags: 0, tag: 'issue', value: 'certs.example' } as oracle.CaaAnswer['data'] },
      ],
    });
    const read = decodeMessage(new Uint8Array(wire));
    expect(read.authoritative).toBe(true);
    expect(read.answers.map((one) => toHex(one.data))).toEqual([
      toHex(parseRdata(6, 'ns1.zone.example. host.zone.example. 5 1 2 3 4')),
      toHex(parseRdata(33, '1 2 3 voice.zone.example.')),
      toHex(parseRdata(257, '0 issue "certs.example"')),
    ]);
  });

  it('cut anywhere are an error, and never anything worse', () => {
    const wire = encodeMessage(
      reply(query(Name.parse('zone.example.'), 15), {
        answers: [record('zone.example.', 'MX', '10 mail.zone.example.'), record('zone.example.', 'TXT', '"abc"')],
      }),
    );
    for (let length = 0; length < wire.length; length++) expect(() => decodeMessage(wire.subarray(0, length))).toThrow(WireError);
    expect(() => decodeMessage(Uint8Array.from([...wire, 0]))).toThrow(WireError);
  });

  it('mutated at random give a message or a WireError', () => {
    const wire = encodeMessage(
      reply(query(Name.parse('www.zone.example.'), 1), {
        answers: [record('www.zone.example.', 'CNAME', 'a.zone.example.'), record('a.zone.example.', 'SOA', 'a. b. 1 2 3 4 5')],
        authorities: [record('zone.example.', 'NSEC', 'b. A MX')],
      }),
    );
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(wire.length - 1), fc.nat(255)), { minLength: 1, maxLength: 8 }), (changes) => {
        const mutant = wire.slice();
        for (const [at, value] of changes) mutant[at] = value;
        try {
          decodeMessage(mutant);
        } catch (error) {
          expect(error).toBeInstanceOf(WireError);
        }
      }),
      { numRuns: 5000 },
    );
  });

  it('that do not fit are cut and say so', () => {
    const large = reply(query(Name.parse('zone.example.'), 16), {
      answers: Array.from({ length: 40 }, (_, i) => record('zone.example.', 'TXT', `"${'x'.repeat(60)}${i}"`)),
    });
    const cut = decodeMessage(encodeWithin(large, 512));
    expect([cut.truncated, cut.answers.length, encodeWithin(large, 512).length <= 512]).toEqual([true, 0, true]);
    expect(decodeMessage(encodeWithin(large, 65_535)).answers).toHaveLength(40);
  });
});
