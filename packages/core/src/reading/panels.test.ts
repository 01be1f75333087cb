import { Name } from '../dns/name';
import { rrsetFromText } from '../dns/record';
import { printRdata } from '../dns/rdata';
import { readText } from './readText';
import { Find } from './find';

const ZONE = 'kelp-forge.example.';
const WANTED = [
  '_sip._tcp.kelp-forge.example. 3600 IN SRV 10 5 5060 voice.brinepost.example.',
  'api.v2.kelp-forge.example. 3600 IN AAAA 2001:db8::11',
  'kelp-forge.example. 3600 IN A 192.0.2.10',
  'kelp-forge.example. 3600 IN MX 10 mx1.brinepost.example.',
  'kelp-forge.example. 3600 IN MX 20 mx2.brinepost.example.',
  'kelp-forge.example. 3600 IN TXT "v=spf1 include:spf.brinepost.example -all"',
  'shop.kelp-forge.example. 3600 IN A 192.0.2.11',
  'www.kelp-forge.example. 3600 IN CNAME kelp-forge.example.',
];

/** One zone as ten panels might show it. All invented. */
const LAYOUTS: Record<string, string> = {
  'tabs with a heading and a priority of its own': `Name\tType\tTTL\tPriority\tValue
@\tA\t3600\t\t192.0.2.10
www\tCNAME\t3600\t\tkelp-forge.example
@\tMX\t3600\t10\tmx1.brinepost.example
@\tMX\t3600\t20\tmx2.brinepost.example
@\tTXT\t3600\t\tv=spf1 include:spf.brinepost.example -all
_sip._tcp\tSRV\t3600\t10\t5 5060 voice.brinepost.example
shop\tA\t3600\t\t192.0.2.11
api.v2\tAAAA\t3600\t\t2001:db8::11`,
  'commas and quotes, the type first, whole names without their dot': `Type,Host,Value,TTL
"A","kelp-forge.example","192.0.2.10","3600"
"CNAME","www.kelp-forge.example","kelp-forge.example.","3600"
"MX","kelp-forge.example","10 mx1.brinepost.example.","3600"
"MX","kelp-forge.example","20 mx2.brinepost.example.","3600"
"TXT","kelp-forge.example","v=spf1 include:spf.brinepost.example -all","3600"
"SRV","_sip._tcp.kelp-forge.example","10 5 5060 voice.brinepost.example.","3600"
"A","shop.kelp-forge.example","192.0.2.11","3600"
"AAAA","api.v2.kelp-forge.example","2001:db8::11","3600"`,
  'semicolons without a heading': `@;3600;A;192.0.2.10
www;3600;CNAME;@
@;3600;MX;10 mx1.brinepost.example.
@;3600;MX;20 mx2.brinepost.example.
@;3600;TXT;"v=spf1 include:spf.brinepost.example -all"
_sip._tcp;3600;SRV;10 5 5060 voice.brinepost.example.
shop;3600;A;192.0.2.11
api.v2;3600;AAAA;2001:db8::11`,
  'bars, with TTLs in words': `| Type | Name | Content | TTL |
| A | kelp-forge.example | 192.0.2.10 | 1 hour |
| CNAME | www | kelp-forge.example | 1 hour |
| MX | kelp-forge.example | 10 mx1.brinepost.example | 1 hour |
| MX | kelp-forge.example | 20 mx2.brinepost.example | 1 hour |
| TXT | kelp-forge.example | "v=spf1 include:spf.brinepost.example -all" | 60 min |
| SRV | _sip._tcp | 10 5 5060 voice.brinepost.example | 1h |
| A | shop | 192.0.2.11 | 3600 s |
| AAAA | api.v2 | 2001:db8::11 | 60 minutes |`,
  'a page in HTML': `<table class="records"><thead><tr><th>Host</th><th>Type</th><th>TTL</th><th>Data</th></tr></thead><tbody>
<tr><td>@</td><td><b>A</b></td><td>1h</td><td>192.0.2.10</td></tr>
<tr><td>www</td><td>CNAME</td><td>1h</td><td>kelp-forge.example.</td></tr>
<tr><td>@</td><td>MX</td><td>1h</td><td>10&nbsp;mx1.brinepost.example.</td></tr>
<tr><td>@</td><td>MX</td><td>1h</td><td>20 mx2.brinepost.example.</td></tr>
<tr><td>@</td><td>TXT</td><td>1h</td><td>&quot;v=spf1 include:spf.brinepost.example -all&quot;</td></tr>
<tr><td>_sip._tcp</td><td>SRV</td><td>1h</td><td>10 5 5060 voice.brinepost.example.</td></tr>
<tr><td>shop</td><td>A</td><td>1h</td><td><span title="x">192.0.2.11</span></td></tr>
<tr><td>api.v2</td><td>AAAA</td><td>1h</td><td>2001:db8::11</td></tr></tbody></table>`,
  'columns of blanks with class and final dots': `kelp-forge.example.            3600  IN  A      192.0.2.10
www.kelp-forge.example.        3600  IN  CNAME  kelp-forge.example.
kelp-forge.example.            3600  IN  MX     10 mx1.brinepost.example.
kelp-forge.example.            3600  IN  MX     20 mx2.brinepost.example.
kelp-forge.example.            3600  IN  TXT    "v=spf1 include:spf.brinepost.example -all"
_sip._tcp.kelp-forge.example.  3600  IN  SRV    10 5 5060 voice.brinepost.example.
shop.kelp-forge.example.       3600  IN  A      192.0.2.11
api.v2.kelp-forge.example.     3600  IN  AAAA   2001:db8::11`,
  'tabs without a heading, the apex left empty, the TTL last': `A\t\t192.0.2.10\t1h
CNAME\twww\tkelp-forge.example.\t1h
MX\t\t10 mx1.brinepost.example.\t1h
MX\t\t20 mx2.brinepost.example.\t1h
TXT\t\tv=spf1 include:spf.brinepost.example -all\t1h
SRV\t_sip._tcp\t10 5 5060 voice.brinepost.example.\t1h
A\tshop\t192.0.2.11\t1h
AAAA\tapi.v2\t2001:db8::11\t1h`,
  'commas, with priority, weight and port in columns': `Record Name,Record Type,TTL,Priority,Weight,Port,Target
kelp-forge.example.,A,3600,,,,192.0.2.10
www.kelp-forge.example.,CNAME,3600,,,,kelp-forge.example.
kelp-forge.example.,MX,3600,10,,,mx1.brinepost.example.
kelp-forge.example.,MX,3600,20,,,mx2.brinepost.example.
kelp-forge.example.,TXT,3600,,,,v=spf1 include:spf.brinepost.example -all
_sip._tcp.kelp-forge.example.,SRV,3600,10,5,5060,voice.brinepost.example.
shop.kelp-forge.example.,A,3600,,,,192.0.2.11
api.v2.kelp-forge.example.,AAAA,3600,,,,2001:db8::11`,
  'HTML with the priority in a cell and no TTL': `<TABLE><TR><TD>Type<TD>Hostname<TD>Pref<TD>Points to</TR>
<TR><TD>A<TD>@<TD><TD>192.0.2.10</TR><TR><TD>CNAME<TD>www<TD><TD>@</TR>
<TR><TD>MX<TD>@<TD>10<TD>mx1.brinepost.example</TR><TR><TD>MX<TD>@<TD>20<TD>mx2.brinepost.example</TR>
<TR><TD>TXT<TD>@<TD><TD>v=spf1 include:spf.brinepost.example -all</TR>
<TR><TD>SRV<TD>_sip._tcp<TD>10<TD>5 5060 voice.brinepost.example</TR>
<TR><TD>A<TD>shop<TD><TD>192.0.2.11</TR><TR><TD>AAAA<TD>api.v2<TD><TD>2001:db8::11</TR></TABLE>`,
  'tabs without a heading, the value first': `192.0.2.10\tA\tkelp-forge.example\t3600
kelp-forge.example.\tCNAME\twww.kelp-forge.example\t3600
10 mx1.brinepost.example.\tMX\tkelp-forge.example\t3600
20 mx2.brinepost.example.\tMX\tkelp-forge.example\t3600
"v=spf1 include:spf.brinepost.example -all"\tTXT\tkelp-forge.example\t3600
10 5 5060 voice.brinepost.example.\tSRV\t_sip._tcp.kelp-forge.example\t3600
192.0.2.11\tA\tshop.kelp-forge.example\t3600
2001:db8::11\tAAAA\tapi.v2.kelp-forge.example\t3600`,
};

const line = ({ owner, type, ttl, data }: Find): string => {
  const set = rrsetFromText({ owner: Name.parse(owner, Name.parse(ZONE)).toString(), type, ttl: ttl ?? 3600, data: [data] });
  return `${set.owner.toString()} ${set.ttl} IN ${type} ${printRdata(set.type, set.data[0]!)}`;
};

describe('a pasted table', () => {
  it.each(Object.entries(LAYOUTS))('of %s reads to the same zone, and nothing of it is asked', (_layout, text) => {
    const { finds, unread } = readText(text, { zone: ZONE, as: 'old', own: [] });
    expect(unread).toEqual([]);
    expect(finds.filter(({ trust }) => trust !== 'sure').map(({ questions }) => questions)).toEqual([]);
    expect(finds.map(line).sort()).toEqual(WANTED);
  });
});

describe('a row without a name', () => {
  const told = (text: string): string[] =>
    readText(text, { zone: ZONE, as: 'old', own: [] }).finds.map(
      ({ owner, type, trust, others }) => `${owner} ${type} ${trust}${others.map((other) => `, or ${other.owner}`).join('')}`,
    );

  it.each([
    ['in a table', 'Name\tType\tValue\n@\tA\t192.0.2.1\n\tMX\t10 mx1.post.example\nwww\tA\t192.0.2.1\n\tAAAA\t2001:db8::1'],
    ['in lines of words', '@ 60 IN A 192.0.2.1\n  60 IN MX 10 mx1.post.example.\nwww 60 IN A 192.0.2.1\n    60 IN AAAA 2001:db8::1'],
  ])('%s is of the domain itself below it, and asked about below another name', (_what, text) =>
    expect(told(text)).toEqual(['@ A sure', '@ MX sure', 'www A sure', 'www AAAA ask, or @']),
  );

  it('is none where the whole list is set in', () => expect(told('  @ A 192.0.2.1\n  www A 192.0.2.1')).toEqual(['@ A sure', 'www A sure']));

  it('is of the domain itself where the first has none', () =>
    expect(told('\tA\t192.0.2.1\nwww\tA\t192.0.2.1\n\tAAAA\t2001:db8::1')).toEqual(['@ A sure', 'www A sure', '@ AAAA sure']));

  it('a label above its value says whether it is of now or wanted, as one beside it', () =>
    expect(told('Type\nA\nName\nwww\nNew value\n192.0.2.9')).toEqual(['www A out']));
});

it('a zone file under an example, or under what is wanted, is left out of what is there', () => {
  const file = '$TTL 60\n@ IN SOA ns1 host 1 1 1 1 1\nwww IN A 192.0.2.1\n';
  const trusts = (text: string): string[] => readText(text, { zone: ZONE, as: 'old', own: [] }).finds.map(({ trust }) => trust);
  expect(trusts(`Example:\n\n${file}`)).toEqual(['out', 'out']);
  expect(trusts(`New records:\n\n${file}`)).toEqual(['out', 'out']);
  expect(trusts(`The zone as it is:\n\n${file}`)).toEqual(['sure', 'sure']);
});
