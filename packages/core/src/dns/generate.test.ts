import { Name } from './name';
import { fillTemplate, parseRange } from './generate';
import { parseZoneFile } from './zoneFile';

describe('$GENERATE', () => {
  it.each([
    ['host-$', 7, 'host-7'],
    ['host-${10,3}', 5, 'host-015'],
    ['${0,4,x}.${0,4,X}', 255, '00ff.00FF'],
    ['${0,3,o}', 8, '010'],
    ['${0,3,n}', 26, 'a.1'],
    ['${0,7,N}', 0xab, 'B.A.0.0'],
    ['$$ \\$ \\. $', 3, '$ $ \\. 3'],
    ['${-5}', 3, '-2'],
    ['${1,2,q}', 3, undefined],
    ['${', 3, undefined],
    ['${2147483640}', 7, '2147483647'],
    ['${2147483640}', 8, undefined],
    ['${2147483648}', 0, undefined],
    ['${-2147483648}', 1, '-2147483647'],
    ['${-2147483649}', 5, undefined],
  ])('fills %p with %p as %p', (template, counter, filled) => expect(fillTemplate(template, counter)).toBe(filled));

  it.each(['', '5', '5-1', '1-5/0', '1-', 'a-b', '1-99999999999', '1-2147483648', '1-2/2147483648'])('refuses the range %p', (text) =>
    expect(parseRange(text)).toBeUndefined(),
  );

  const findings = (text: string): string[] =>
    parseZoneFile(`$TTL 60\n${text}\n`, Name.parse('zone.example.')).findings.map((one) => `${one.line}:${one.column} ${one.message}`);
  it.each([
    ['$GENERATE 1-2 a$ A 192.0.2.$ extra', '2:30 data of more than one word is quoted'],
    ['$GENERATE 1-2 a$ A', '2:19 the data is missing'],
    ['$GENERATE 250-256 a$ A 192.0.2.$', '2:24 192.0.2.256 is not an IPv4 address'],
    ['$GENERATE 8-8 a${2147483640} A 192.0.2.1', '2:15 a${2147483640} cannot be filled in'],
    ['$GENERATE 0-2000000 a$ A 192.0.2.1', '2:11 a range makes at most 1000000 records'],
  ])('%p is a finding with its place', (text, wanted) => expect(findings(text)).toEqual([wanted]));
});
