import { createHash } from 'node:crypto';
import fc from 'fast-check';
import { toBase32Hex } from '../dns/base32';
import { toHex } from '../dns/bytes';
import { Name } from '../dns/name';
import { parseRdata } from '../dns/rdata';
import { ResourceRecord } from '../dns/record';
import { Nsec3Chain, Nsec3Params, nsec3Hash } from './nsec3Chain';

const sha1 = (data: Uint8Array): Uint8Array => new Uint8Array(createHash('sha1').update(data).digest());
const ZONE = Name.parse('reed-bank.example.');
const PLAIN: Nsec3Params = { iterations: 0, salt: new Uint8Array() };

/** The records of a ring over names, as RFC 5155 §7.1 makes it. */
function ring(names: readonly string[], params = PLAIN, flags = 0): ResourceRecord[] {
  const hashes = [...new Set(names)].map((name) => toBase32Hex(nsec3Hash(sha1, Name.parse(name, ZONE), params))).sort();
  return hashes.map((hash, index) => ({
    owner: ZONE.child(hash.toLowerCase()),
    type: 50,
    cls: 1,
    ttl: 60,
    data: parseRdata(50, `1 ${flags} ${params.iterations} ${toHex(params.salt) || '-'} ${hashes[(index + 1) % hashes.length]} A TXT`),
  }));
}

describe('the ring of hashes', () => {
  it('hashes as the standard does (RFC 5155 appendix A)', () => {
    const params = { iterations: 12, salt: Uint8Array.from([0xaa, 0xbb, 0xcc, 0xdd]) };
    const hash = (name: string): string => toBase32Hex(nsec3Hash(sha1, Name.parse(name), params)).toLowerCase();
    expect(hash('example.')).toBe('0p9mhaveqvm6t7vbl5lop2u3t2rp3tom');
    expect(hash('A.Example.')).toBe('35mthgpgcu1qg68fab165klnsnk3dpvl');
    expect(hash('*.w.example.')).toBe('r53bq7cc2uvmubfu5ocmm6pers9tk9en');
  });

  it('is closed once every record was seen, covers every name then, and not before', () => {
    const label = fc.stringMatching(/^[a-z]{1,6}$/);
    fc.assert(
      fc.property(fc.uniqueArray(label, { minLength: 1, maxLength: 12 }), fc.uniqueArray(label, { minLength: 1, maxLength: 20 }), (names, asked) => {
        const records = ring(names);
        const chain = new Nsec3Chain(ZONE, sha1);
        records.forEach((record, index) => {
          expect(chain.closed).toBe(false);
          expect(chain.take([record])).toBe(1);
          expect(chain.take([record])).toBe(0);
          expect(chain.size).toBe(index + 1);
        });
        expect(chain.closed).toBe(true);
        for (const name of asked)
          expect([chain.covers(Name.parse(name, ZONE)), chain.match(Name.parse(name, ZONE)) !== undefined]).toEqual([true, names.includes(name)]);
        expect(chain.unmatched()).toHaveLength(names.filter((name) => !asked.includes(name)).length);
      }),
    );
  });

  it('asks for a name put to a hash that was only led to, and matches it afterwards', () => {
    const records = ring(['a', 'b', 'c', 'd']);
    const chain = new Nsec3Chain(ZONE, sha1);
    const missing = records.find((record) => record.owner.toString().startsWith(toBase32Hex(nsec3Hash(sha1, ZONE.child('c'), PLAIN)).toLowerCase()))!;
    chain.take(records.filter((record) => record !== missing));
    expect(chain.match(ZONE.child('c'))).toBeUndefined();
    expect(chain.takeToAsk().map((name) => name.toString())).toEqual(['c.reed-bank.example.']);
    expect(chain.takeToAsk()).toEqual([]);
    chain.take([missing]);
    expect([chain.closed, chain.match(ZONE.child('c'))]).toEqual([true, [1, 16]]);
  });

  it('tells of delegations left out, denials made to measure, and hashing without end', () => {
    const open = new Nsec3Chain(ZONE, sha1);
    open.take(ring(['a', 'b'], PLAIN, 1));
    expect([open.closed, open.optOut]).toEqual([true, true]);
    const made = new Nsec3Chain(ZONE, sha1);
    const owner = '0p9mhaveqvm6t7vbl5lop2u3t2rp3tom';
    made.take([{ owner: ZONE.child(owner), type: 50, cls: 1, ttl: 60, data: parseRdata(50, `1 0 0 - ${owner.slice(0, -1)}o A`) }]);
    expect(made.problem).toMatch(/makes up denials/);
    const slow = new Nsec3Chain(ZONE, sha1);
    slow.take(ring(['a', 'b'], { iterations: 2000, salt: new Uint8Array() }));
    expect(slow.problem).toMatch(/2000 times over/);
  });
});
