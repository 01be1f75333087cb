import fc from 'fast-check';
import { dataOf, layoutTypes, name } from '../testing/arbitrary';
import { toHex } from './bytes';
import { Name } from './name';
import { printRdata } from './rdata';
import { ResourceRecord } from './record';
import { typeCode, typeMnemonic } from './typeNames';
import { ZoneReader, gatherZone, parseZoneFile, printZoneFile } from './zoneFile';

const zone = Name.parse('zone.example.');
const lines = (text: string): string[] =>
  parseZoneFile(text, zone).records.map((one) => `${one.owner.toString()} ${one.ttl} ${typeMnemonic(one.type)} ${printRdata(one.type, one.data)}`);

describe('zone files', () => {
  it('read every way in which RFC 1035 §5 lets a record be written', () => {
    expect(
      lines(`$TTL 1h ; an hour
@ IN SOA ns1 host (
  2027010100 ; serial
  2h 15m 2w 30m )
 IN NS ns1
  NS ns2.other.example.
www 300 IN A 192.0.2.1
    IN 600 AAAA 2001:db8::1
"quoted" TXT "a ; b" ( "c"
  d )
$ORIGIN sub
@ A 192.0.2.2
$ORIGIN zone.example.
e\\.f CNAME @\r
last 1d A 192.0.2.3`),
    ).toEqual([
      'zone.example. 3600 SOA ns1.zone.example. host.zone.example. 2027010100 7200 900 1209600 1800',
      'zone.example. 3600 NS ns1.zone.example.',
      'zone.example. 3600 NS ns2.other.example.',
      'www.zone.example. 300 A 192.0.2.1',
      'www.zone.example. 600 AAAA 2001:db8::1',
      'quoted.zone.example. 3600 TXT "a ; b" "c" "d"',
      'sub.zone.example. 3600 A 192.0.2.2',
      'e\\.f.zone.example. 3600 CNAME zone.example.',
      'last.zone.example. 86400 A 192.0.2.3',
    ]);
  });

  it('read a byte order mark, tabs and empty lines', () =>
    expect(lines('\uFEFF\n\n;c\nwww\t60\tIN\tA\t192.0.2.1\n\n')).toEqual(['www.zone.example. 60 A 192.0.2.1']));

  it('report every bad entry with its place, and keep the good ones', () => {
    const { records, findings } = parseZoneFile('$TTL 60\na A 192.0.2.1\nb A 192.0.2\nc NOTATYPE x\n$INCLUDE other\nd A 192.0.2.4\ne MX mail\n', zone);
    expect(records.map((one) => one.owner.relativeTo(zone))).toEqual(['a', 'd']);
    expect(findings.map(({ line, column, message }) => ({ line, column, message }))).toEqual([
      { line: 3, column: 5, message: '192.0.2 is not an IPv4 address' },
      { line: 4, column: 3, message: 'NOTATYPE is not a record type' },
      { line: 5, column: 1, message: '$INCLUDE is not read here' },
      { line: 7, column: 6, message: 'preference must be a number' },
    ]);
  });

  it.each([
    ['a (', 'a parenthesis is never closed'],
    ['a ) ', 'a parenthesis is closed that was never opened'],
    ['a TXT "x', 'a quoted string is not closed on its line'],
    [' A 192.0.2.1', 'the record has no owner name, and none stands before it'],
    ['a A 192.0.2.1', 'no TTL is given and there is no $TTL'],
    ['a 60 CH A 192.0.2.1', 'only class IN is served'],
    ['a 60 ANY A 192.0.2.1', 'only class IN is served'],
    ['a 60 AXFR x', 'AXFR cannot stand in a zone'],
    ['a 60 MD x', 'MD is obsolete and no longer loaded; MX took its place'],
  ])('say what is wrong with %p', (text, message) => expect(parseZoneFile(text, zone).findings[0]!.message).toBe(message));

  it('printed read back to the same records', () => {
    const anyRecord = fc
      .tuple(name, fc.constantFrom(...layoutTypes), fc.nat(0x7fffffff))
      .chain(([owner, type, ttl]) => dataOf(type).map((data): ResourceRecord => ({ owner, type: typeCode(type)!, cls: 1, ttl, data })));
    fc.assert(
      fc.property(fc.array(anyRecord, { maxLength: 6 }), (records) => {
        const read = parseZoneFile(printZoneFile(records), Name.root);
        expect(read.findings.filter((finding) => finding.code === 'syntax')).toEqual([]);
        expect(read.records.map((one) => [one.owner.toString(), one.type, one.ttl, toHex(one.data)])).toEqual(
          records.map((one) => [one.owner.toString(), one.type, one.ttl, toHex(one.data)]),
        );
      }),
      { numRuns: 150 },
    );
  });

  it('in pieces of any size read as they do in one', () => {
    const text = Buffer.from(
      '\uFEFF$TTL 60 ; é\r\n@ SOA ns1 h (\r\n 1 ; "x\n 2 3\n 4 5 )\n A 192.0.2.1\nb TXT "a\\"; b" c\\ d\n\n; only this\n  \nc A 192.0.2\nd ) A x\ne TXT "open\nf A 192.0.2.6',
    );
    const whole = parseZoneFile(text, zone);
    expect([whole.records.length, whole.findings.map((one) => `${one.line}:${one.column}`)]).toEqual([4, ['11:5', '12:3', '13:7']]);
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 30 }), { minLength: 1, maxLength: 60 }), (sizes) => {
        const gathered = gatherZone();
        const reader = new ZoneReader(zone, gathered);
        for (let at = 0, i = 0; at < text.length; i++) {
          const size = sizes[i % sizes.length]!;
          reader.write(text.subarray(at, at + size));
          at += size;
        }
        reader.end();
        expect(printZoneFile(gathered.file.records)).toBe(printZoneFile(whole.records));
        expect(gathered.file.places).toEqual(whole.places);
        expect(gathered.file.findings).toEqual(whole.findings);
      }),
    );
  });

  it('of any text give records or findings, and never anything worse', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.constantFrom(
            'www',
            ' ',
            '\n',
            '(',
            ')',
            '"',
            ';',
            '\\',
            '@',
            'A',
            'TXT',
            '60',
            'IN',
            '192.0.2.1',
            '$TTL',
            '$ORIGIN',
            '\\#',
            '.',
            '\t',
            'é',
            '\\300',
          ),
          { maxLength: 40 },
        ),
        (parts) => {
          parseZoneFile(parts.join(''), zone);
        },
      ),
      { numRuns: 2000 },
    );
  });
});
