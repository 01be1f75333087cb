import fc from 'fast-check';
import { isIP } from 'node:net';
import { parseIpv4, parseIpv6, printIpv4, printIpv6 } from './address';

describe('addresses', () => {
  it('of sixteen octets print as Node takes them and read back', () => {
    fc.assert(
      fc.property(fc.array(fc.oneof(fc.constant(0), fc.nat(255)), { minLength: 16, maxLength: 16 }), (octets) => {
        const text = printIpv6(Uint8Array.from(octets));
        expect(isIP(text)).toBe(6);
        expect([...parseIpv6(text)!]).toEqual(octets);
      }),
    );
  });

  it.each([
    ['20010db8000000000001000000000001', '2001:db8::1:0:0:1'],
    ['20010db8000000010001000100010001', '2001:db8:0:1:1:1:1:1'],
    ['00000000000000000000000000000001', '::1'],
    ['00000000000000000000000000000000', '::'],
    ['00000000000000000000ffffc0000201', '::ffff:192.0.2.1'],
  ])('%s prints as RFC 5952 wants: %s', (hex, text) => expect(printIpv6(Uint8Array.from(Buffer.from(hex, 'hex')))).toBe(text));

  it('agree with Node on what is an address', () => {
    fc.assert(
      fc.property(fc.stringMatching(/^[0-9a-f:.]{1,24}$/), (text) => {
        expect(parseIpv6(text) !== undefined).toBe(isIP(text) === 6);
        if (isIP(text) === 4) expect(printIpv4(parseIpv4(text)!)).toBe(text);
      }),
      { numRuns: 3000 },
    );
  });
});
