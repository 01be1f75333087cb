import fc from 'fast-check';
import { inAny, inPrefix, isPublicAddress, parsePrefix } from './prefix';

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

  it('holds, of several, what any of them holds', () => {
    const octets = fc.oneof(fc.uint8Array({ minLength: 4, maxLength: 4 }), fc.uint8Array({ minLength: 16, maxLength: 16 }));
    const prefix = fc.tuple(octets, fc.nat(128)).map(([of, wish]) => ({ octets: of, length: Math.min(wish, of.length * 8) }));
    fc.assert(
      fc.property(fc.array(prefix, { maxLength: 6 }), octets, fc.nat(), fc.nat(20), (all, address, pick, keep) => {
        // Near one of them as often as not.
        const near = all[pick % Math.max(1, all.length)];
        const asked = near ? Uint8Array.from(near.octets, (octet, at) => (at * 8 < keep ? octet : address[at % address.length]!)) : address;
        expect(inAny(all)(asked)).toBe(all.some((one) => inPrefix(one, asked)));
      }),
    );
  });

  // As the registries of special-purpose addresses have them, IPv4 and IPv6, with what they say of "globally reachable".
  it.each(
    `0.0.0.0/8 no; 10.0.0.0/8 no; 100.64.0.0/10 no; 127.0.0.0/8 no; 169.254.0.0/16 no; 172.16.0.0/12 no; 192.0.0.0/29 no; 192.0.0.8/32 no; 192.0.0.9/32 yes;
    192.0.0.10/32 yes; 192.0.0.170/32 no; 192.0.0.171/32 no; 192.0.2.0/24 no; 192.31.196.0/24 yes; 192.52.193.0/24 yes; 192.88.99.0/24 no; 192.168.0.0/16 no;
    192.175.48.0/24 yes; 198.18.0.0/15 no; 198.51.100.0/24 no; 203.0.113.0/24 no; 240.0.0.0/4 no; 255.255.255.255/32 no;
    ::1/128 no; ::/128 no; 64:ff9b:1::/48 no; 100::/64 no; 100:0:0:1::/64 no; 2001:1::1/128 yes; 2001:1::2/128 yes; 2001:1::3/128 yes; 2001:2::/48 no;
    2001:3::/32 yes; 2001:4:112::/48 yes; 2001:10::/28 no; 2001:20::/28 yes; 2001:30::/28 yes; 2001:db8::/32 no; 2620:4f:8000::/48 yes; 3fff::/20 no;
    5f00::/16 no; fc00::/7 no; fe80::/10 no`
      .split(';')
      .map((entry) => entry.trim().split(' ') as [string, string]),
  )('knows %s as the registries do: reachable %s', (range, reachable) => {
    const { octets, length } = parsePrefix(range)!;
    const shown = (all: Uint8Array): string => (all.length === 4 ? all.join('.') : Buffer.from(all).toString('hex').match(/.{4}/g)!.join(':'));
    const last = octets.map((octet, at) => octet | (at * 8 >= length ? 0xff : at * 8 + 8 <= length ? 0 : 0xff >> (length - at * 8)));
    for (const one of [octets, last]) {
      const address = shown(one);
      expect([address, isPublicAddress(address)]).toEqual([address, reachable === 'yes']);
    }
  });

  it.each([
    ['::ffff:10.0.0.1', false],
    ['::ffff:8.8.4.4', true],
    ['64:ff9b::a00:1', false],
    ['64:ff9b::808:404', true],
    ['2002:a00:1::1', false],
    ['2002:808:404::1', true],
    // Teredo has the client's address turned over: 10.0.0.1, and 8.8.4.4.
    ['2001:0:808:404:0:0:f5ff:fffe', false],
    ['2001:0:808:404:0:0:f7f7:fbfb', true],
    ['2600::5efe:10.0.0.1', false],
    ['2600::200:5efe:10.0.0.1', false],
    ['2600::5efe:8.8.4.4', true],
  ])('sees what %s carries', (address, isPublic) => expect(isPublicAddress(address)).toBe(isPublic));

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
