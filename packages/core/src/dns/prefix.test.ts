import fc from 'fast-check';
import { inPrefix, isPublicAddress, parsePrefix } from './prefix';

describe('a range of addresses', () => {
  it.each(['192.0.2.0/24', '2001:db8::/32', '192.0.2.1', '::/0', '0.0.0.0/0'])('reads %s', (text) => expect(parsePrefix(text)).toBeDefined());
  it.each(['192.0.2.1/24', '192.0.2.0/33', '2001:db8::1/64', 'x', '192.0.2.0/', '192.0.2.0/24/1', ''])('refuses %s', (text) =>
    expect(parsePrefix(text)).toBeUndefined(),
  );

  it('holds what has the same first bits, bit by bit', () => {
    const octets = (size: number): fc.Arbitrary<Uint8Array> => fc.uint8Array({ minLength: size, maxLength: size });
    fc.assert(
      fc.property(fc.oneof(fc.tuple(octets(4), octets(4)), fc.tuple(octets(16), octets(16))), fc.nat(128), ([a, b], wish) => {
        const length = Math.min(wish, a.length * 8);
        const bits = (one: Uint8Array): string => [...one].map((octet) => octet.toString(2).padStart(8, '0')).join('');
        expect(inPrefix({ octets: a, length }, b)).toBe(bits(a).slice(0, length) === bits(b).slice(0, length));
      }),
    );
  });

  it('tells the public internet from everything that is of one machine, one network or nobody', () => {
    for (const address of `127.0.0.1 10.1.2.3 172.31.0.1 192.168.1.1 169.254.169.254 100.64.0.1 0.0.0.0 224.0.0.1 255.255.255.255 ::1 :: fe80::1 fd00::1 ff02::1
      ::ffff:127.0.0.1 ::ffff:10.0.0.1 64:ff9b::7f00:1 2002:7f00:1::1 ::127.0.0.1 192.0.2.1 2001:db8::1 not-an-address`.split(/\s+/))
      expect([address, isPublicAddress(address)]).toEqual([address, false]);
    // Any address whose first octet no special range begins with is public, and stays so inside an IPv6 address.
    const special = new Set([0, 10, 100, 127, 169, 172, 192, 198, 203]);
    const octet = fc.nat(255);
    fc.assert(
      fc.property(fc.tuple(octet, octet, octet, octet), ([first, ...rest]) => {
        fc.pre(!special.has(first));
        const address = [first, ...rest].join('.');
        expect([isPublicAddress(address), isPublicAddress(`::ffff:${address}`)]).toEqual([first < 224, first < 224]);
      }),
    );
  });
});
