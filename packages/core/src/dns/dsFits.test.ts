import { createHash, randomBytes } from 'node:crypto';
import { keyTag } from './childSync';
import { dsFits } from './dsFits';
import { Name } from './name';
import { parseRdata } from './rdata';
import { TYPE_CODES } from './typeNames';

const key = (text: string): Uint8Array => parseRdata(TYPE_CODES.DNSKEY, text);
const ds = (text: string): Uint8Array => parseRdata(TYPE_CODES.DS, text);
const RSA =
  '256 3 5 AQOeiiR0GOMYkDshWoSKz9XzfwJr1AYtsmx3TGkJaNXVbfi/2pHm822aJ5iI9BMzNXxeYCmZDRD99WYwYqUSdjMmmAphXdvxegXd/M5+X7OrzKBaMbCVdFLUUh6DhweJBjEVv5f2wwjM9XzcnOf+EPbtG9DMBmADjFDc2w/rljwvFw==';
const P256 = '257 3 13 GojIhhXUN/u4v54ZQqGSnyhWJwaubCvTmeexv7bR6edbkrSqQpF64cYbcB7wNcP+e+MAnLr+Wi9xMWyQLc8NAA==';
const P384 = '257 3 14 xKYaNhWdGOfJ+nPrL8/arkwf2EY3MDJ+SErKivBVSum1w/egsXvSADtNJhyem5RCOpgQ6K8X1DRSEkrbYQ+OB+v8/uX45NBwY8rp65F6Glur8I/mlVNgF6W/qTI37m40';

describe('a DS and the key that it stands for', () => {
  it.each([
    ['RFC 4034 §5.4', 'dskey.example.com.', RSA, '60485 5 1 2BB183AF5F22588179A53B0A98631FAD1A292118'],
    ['RFC 4509 §2.3', 'dskey.example.com.', RSA, '60485 5 2 D4B7D520E7BB5F0F67674A0CCEB1E3E0614B93C4F9E99B8383F6A1E4469DA50A'],
    ['RFC 6605 §6.1', 'example.net.', P256, '55648 13 2 B4C8C1FE2E7477127B27115656AD6256F424625BF5C1E2770CE6D6E37DF61D17'],
    ['RFC 6605 §6.2', 'example.net.', P384, '10771 14 4 72D7B62976CE06438E9C0BF319013CF801F09ECC84B8D7E9495F27E305C6A9B0563A9B5F4D288405C3008A946DF983D6'],
  ])('fit as in %s, in any case of the name', (_rfc, owner, dnskey, text) => {
    expect(dsFits(Name.parse(owner), ds(text), key(dnskey))).toBe(true);
    expect(dsFits(Name.parse(owner.toUpperCase()), ds(text), key(dnskey))).toBe(true);
    expect(dsFits(Name.parse(`x.${owner}`), ds(text), key(dnskey))).toBe(false);
  });

  it('do not fit where one octet of the digest is another, though tag and algorithm are the same', () => {
    const sound = ds('55648 13 2 B4C8C1FE2E7477127B27115656AD6256F424625BF5C1E2770CE6D6E37DF61D17');
    for (let at = 4; at < sound.length; at++) {
      const other = sound.slice();
      other[at]! ^= 1;
      expect(dsFits(Name.parse('example.net.'), other, key(P256))).toBe(false);
    }
  });

  it('agree with digests made by Node, for keys of any length', () => {
    const owner = Name.parse('reed-bank.example.');
    for (const [type, name] of [
      [1, 'sha1'],
      [2, 'sha256'],
      [4, 'sha384'],
    ] as const)
      for (let octets = 1; octets < 200; octets += 17) {
        const dnskey = Uint8Array.from([1, 1, 3, 13, ...randomBytes(octets)]);
        const digest = createHash(name).update(owner.wire).update(dnskey).digest();
        const tag = keyTag(dnskey);
        expect(dsFits(owner, Uint8Array.from([tag >> 8, tag & 255, 13, type, ...digest]), dnskey)).toBe(true);
      }
  });

  it('say nothing of digests that nobody checks by, and nothing for keys that sign no zone or were revoked', () => {
    const owner = Name.parse('example.net.');
    expect(dsFits(owner, Uint8Array.from([217, 96, 13, 3, 1, 2]), key(P256))).toBeUndefined();
    const text = '55648 13 2 B4C8C1FE2E7477127B27115656AD6256F424625BF5C1E2770CE6D6E37DF61D17';
    for (const flags of [1, 385]) expect(dsFits(owner, ds(text), key(P256.replace('257', String(flags))))).toBe(false);
  });
});
