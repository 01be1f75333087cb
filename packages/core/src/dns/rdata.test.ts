import fc from 'fast-check';
import { dataOf, layoutTypes } from '../testing/arbitrary';
import { ByteReader, WireError, fromHex, toHex } from './bytes';
import { Name } from './name';
import { canonicalRdata, expandRdata, namesIn, parseRdata, printRdata, rdataProblem } from './rdata';
import { TextError } from './token';
import { typeCode } from './typeNames';
import { RECORD_TYPES } from './types';

const code = (mnemonic: string): number => typeCode(mnemonic)!;

describe('record data', () => {
  it('has a layout to test for every type', () => {
    for (const type of RECORD_TYPES.values()) expect(layoutTypes).toContain(type.mnemonic);
  });

  it.each(layoutTypes)('%s is the same through text and through a message', (mnemonic) => {
    const type = code(mnemonic);
    fc.assert(
      fc.property(dataOf(mnemonic), (data) => {
        expect(toHex(parseRdata(type, printRdata(type, data)))).toBe(toHex(data));
        const reader = new ByteReader(data);
        expect(toHex(expandRdata(type, reader, data.length))).toBe(toHex(data));
        expect(reader.left).toBe(0);
        expect(canonicalRdata(type, data)).toHaveLength(data.length);
      }),
      { numRuns: 60 },
    );
  });

  it.each([
    ['A', '192.0.2.1', 'c0000201'],
    ['AAAA', '2001:db8::1', '20010db8000000000000000000000001'],
    ['MX', '10 mail.zone.example.', '000a046d61696c047a6f6e65076578616d706c6500'],
    ['TXT', '"a b" c "\\"\\\\" "\\195\\164"', '036120620163' + '02225c' + '02c3a4'],
    ['SRV', '1 2 5060 .', '0001000213c400'],
    ['CAA', '0 issue "certs.example"', '00056973737565' + '63657274732e6578616d706c65'],
    ['NSEC', 'a. A MX RRSIG NSEC TYPE1234', '016100' + '0006400100000003' + '041b' + '00'.repeat(26) + '20'],
    // date -u -d '2003-03-22 17:31:03' +%s is 1048354263, 0x3e7c9dd7.
    ['RRSIG', 'A 5 3 86400 20030322173103 20030220173103 2642 example. AA==', '00010503000151803e7c9dd73e5510d70a52076578616d706c650000'],
    ['TYPE65400', '\\# 3 00ff10', '00ff10'],
    ['A', '\\# 4 c0000201', 'c0000201'],
    // Codes inside that their types do not know (yet): an address family, a relay type, a gateway type.
    ['APL', '\\# 5 0003080101', '0003080101'],
    ['AMTRELAY', '\\# 4 0a04aabb', '0a04aabb'],
    ['IPSECKEY', '\\# 5 0a0402aabb', '0a0402aabb'],
  ])('%s %s is %s', (mnemonic, text, hex) => expect(toHex(parseRdata(code(mnemonic), text))).toBe(hex));

  it.each([
    ['A', '192.0.2'],
    ['A', '192.0.2.256'],
    ['A', '192.0.2.1 192.0.2.2'],
    ['AAAA', '2001:db8::1::2'],
    ['AAAA', '2001:db8'],
    ['MX', 'mail.zone.example.'],
    ['MX', '70000 mail.zone.example.'],
    ['MX', '10'],
    ['TXT', ''],
    ['TXT', `"${'x'.repeat(256)}"`],
    ['CNAME', 'a..b'],
    ['SRV', '1 2 3'],
    ['DS', '1 2 3 abc'],
    ['DNSKEY', '257 3 13 not*base64'],
    ['CAA', '0 is-sue "x"'],
    ['TYPE65400', 'plain words'],
    ['A', '\\# 5 c0000201'],
  ])('refuses %s %s, and says where', (mnemonic, text) => {
    try {
      parseRdata(code(mnemonic), text);
    } catch (error) {
      expect(error).toBeInstanceOf(TextError);
      expect((error as TextError).column).toBeGreaterThan(0);
      return;
    }
    throw new Error('it was taken');
  });

  it('of any octets is the same through text, whatever its type', () => {
    fc.assert(
      fc.property(fc.constantFrom(...layoutTypes), fc.uint8Array({ maxLength: 80 }), (mnemonic, data) => {
        expect(toHex(parseRdata(code(mnemonic), printRdata(code(mnemonic), data)))).toBe(toHex(data));
      }),
      { numRuns: 4000 },
    );
  });

  it.each([
    ['A', 'c00002', 'this is no data of type A'],
    ['CAA', '000669732d73756561', 'this is no data of type CAA'],
    ['DS', '000108' + '02aa', 'a digest of type 2 has 32 octets, this one has 1'],
    ['SSHFP', '0101aa', 'a fingerprint of type 1 has 20 octets, this one has 1'],
    ['X25', '03313233', 'an X.25 address has four digits at least, and nothing else'],
    ['A', 'c0000201', undefined],
    ['APL', '0003080101', undefined],
    ['APL', '0003080501', 'this is no data of type APL'],
    ['AMTRELAY', '0a04aabb', undefined],
    ['IPSECKEY', '0a0402aabb', undefined],
  ])('%s of %s can be carried, and is said to be wrong: %s', (mnemonic, hex, problem) => expect(rdataProblem(code(mnemonic), fromHex(hex))).toBe(problem));

  it('prints data that its type cannot hold as RFC 3597', () => {
    expect(printRdata(code('A'), fromHex('c00002'))).toBe('\\# 3 C00002');
    expect(printRdata(code('MX'), fromHex('000a'))).toBe('\\# 2 000A');
    expect(printRdata(code('TXT'), new Uint8Array(0))).toBe('\\# 0');
    expect(printRdata(code('APL'), fromHex('0003080101'))).toBe('\\# 5 0003080101');
    expect(printRdata(code('AMTRELAY'), fromHex('0a04aabb'))).toBe('\\# 4 0A04AABB');
  });

  it('refuses data in a message that runs past its length', () => {
    expect(() => expandRdata(code('A'), new ByteReader(fromHex('c0000201ff')), 5)).toThrow(WireError);
    expect(() => expandRdata(code('MX'), new ByteReader(fromHex('000a01')), 3)).toThrow(WireError);
    expect(() => expandRdata(code('A'), new ByteReader(fromHex('c000')), 4)).toThrow(WireError);
  });

  it('finds the names inside, and lowers them where the standard asks for it', () => {
    const srv = parseRdata(code('SRV'), '1 2 3 Voice.Zone.Example.');
    expect(namesIn(code('SRV'), srv).map(String)).toEqual(['Voice.Zone.Example.']);
    expect(printRdata(code('SRV'), canonicalRdata(code('SRV'), srv))).toBe('1 2 3 voice.zone.example.');
    const txt = parseRdata(code('TXT'), '"Keep This"');
    expect(canonicalRdata(code('TXT'), txt)).toBe(txt);
  });

  it('completes names from the origin', () =>
    expect(printRdata(code('CNAME'), parseRdata(code('CNAME'), 'www', Name.parse('zone.example.')))).toBe('www.zone.example.'));
});
