import { keyTag } from '../dns/childSync';
import { Message, query } from '../dns/message';
import { Name } from '../dns/name';
import { parseRdata } from '../dns/rdata';
import { ResourceRecord } from '../dns/record';
import { TYPE_CODES } from '../dns/typeNames';
import { unsignedOf } from './signatures';

const ZONE = Name.parse('zone.test.');
const KEYS = ['257 3 13 mdsswUyr3DPW132mOi8V9xESWE8jTo0dxCjjnopKl+GqJxpVXckHAeF+KkxLbxILfDLUT0rAK9iUzy1L53eKGQ=='];
const TAG = keyTag(parseRdata(TYPE_CODES.DNSKEY, KEYS[0]!));
/** 2027-03-12 */
const NOW = 1_804_809_600;

type Type = 'DNSKEY' | 'SOA' | 'NSEC' | 'NSEC3' | 'A';
const DATA: Readonly<Record<Type, string>> = {
  DNSKEY: KEYS[0]!,
  SOA: 'ns1.new.test. host.new.test. 1 7200 3600 1209600 300',
  NSEC: 'www.zone.test. NS SOA RRSIG NSEC DNSKEY',
  NSEC3: '1 0 0 - 2T7B4G4VSA5SMI47K61MV5BV1A22BOJR A',
  A: '192.0.2.1',
};
const record = (type: string, data: string, owner = ZONE): ResourceRecord => {
  const code = TYPE_CODES[type as Type];
  return { owner, type: code, cls: 1, ttl: 300, data: parseRdata(code, data) };
};
const signature = (type: Type, { until = '20270401000000', from = '20270301000000', tag = TAG, algorithm = 13 } = {}): ResourceRecord =>
  record('RRSIG', `${type} ${algorithm} 2 300 ${until} ${from} ${tag} zone.test. AAAA`);
const set = (type: Type, ...more: ResourceRecord[]): ResourceRecord[] => [record(type, DATA[type]), ...more];
const signed = (type: Type): ResourceRecord[] => set(type, signature(type));
const answer = (answers: ResourceRecord[], authorities: ResourceRecord[] = []): Message => ({ ...query(ZONE, 1), response: true, answers, authorities });
/** Of a server that signs, with other records in the place of some. */
const bare = (of: { keys?: ResourceRecord[]; soa?: ResourceRecord[]; denial?: ResourceRecord[] } = {}, now = NOW): string[] => {
  const denial = of.denial ?? [...signed('SOA'), ...signed('NSEC')];
  return unsignedOf(ZONE, KEYS, [answer(of.keys ?? signed('DNSKEY')), answer(of.soa ?? signed('SOA')), answer([], denial)], now);
};

describe('what a server of a signed zone gives without a signature', () => {
  it('is nothing where everything bears one by its keys, whichever way it denies', () => {
    expect([bare(), bare({ denial: [...signed('SOA'), ...signed('NSEC3')] })]).toEqual([[], []]);
  });

  it('is a set without one, and one whose signature is of another set, key or algorithm', () => {
    expect(bare({ soa: set('SOA') })).toEqual(['SOA of zone.test.']);
    expect(bare({ keys: set('DNSKEY', signature('SOA')) })).toEqual(['DNSKEY of zone.test.']);
    expect(bare({ soa: set('SOA', signature('SOA', { tag: TAG ^ 1 })) })).toEqual(['SOA of zone.test.']);
    expect(bare({ soa: set('SOA', signature('SOA', { algorithm: 8 })) })).toEqual(['SOA of zone.test.']);
    expect(bare({ denial: [...signed('SOA'), ...set('NSEC3')] })).toEqual(['NSEC3']);
  });

  it('is a denial without a proof, as of a server that fetched the zone and knows nothing of signatures', () => {
    expect(bare({ denial: signed('SOA') })).toEqual(['proof of what is not there']);
    expect(bare({ keys: set('DNSKEY'), soa: set('SOA'), denial: set('SOA') })).toEqual([
      'DNSKEY of zone.test.',
      'SOA of zone.test.',
      'proof of what is not there',
    ]);
  });

  it('is what was signed for another time, past or to come', () => {
    expect(bare({ soa: set('SOA', signature('SOA', { until: '20270311000000' })) })).toEqual(['SOA of zone.test.']);
    expect(bare({ soa: set('SOA', signature('SOA', { from: '20270313000000' })) })).toEqual(['SOA of zone.test.']);
    // An old one beside the one that holds does no harm.
    expect(bare({ soa: set('SOA', signature('SOA', { until: '20270311000000' }), signature('SOA')) })).toEqual([]);
    expect(bare({}, Date.UTC(2027, 3, 1) / 1000 + 1)).toEqual(['DNSKEY of zone.test.', 'NSEC of zone.test.', 'SOA of zone.test.']);
  });

  it('is told of no record that is not of the zone', () => {
    expect(bare({ soa: [...signed('SOA'), record('A', DATA.A, Name.parse('elsewhere.test.'))] })).toEqual([]);
  });
});
