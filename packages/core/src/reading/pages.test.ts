import { readText } from './readText';
import { TextReading } from './find';

const read = (text: string, own: readonly string[] = ['choir.example']): TextReading => readText(text, { zone: undefined, as: 'new', own });

/** In brief: what is asked about ends in a question mark, what is left out in a minus. */
function brief(text: string): string[] {
  const { finds } = read(text);
  return finds.map(
    ({ kind, owner, type, data, trust }) =>
      `${kind === 'record' ? `${owner} ${type} ${data}` : `${kind} ${data}`}${trust === 'sure' ? '' : trust === 'ask' ? ' ?' : ' -'}`,
  );
}

/** Thirty pages and mails of invented hosts: what is given, and what was asked about or not understood. */
const PAGES: readonly (readonly [string, string, readonly string[]])[] = [
  [
    'a table with tabs',
    'Type\tName\tValue\tTTL\nA\t@\t203.0.113.7\t3600\nCNAME\twww\tsites.hearth.example.\t3600',
    ['@ A 203.0.113.7', 'www CNAME sites.hearth.example.'],
  ],
  [
    'its columns in another order',
    'Host\tPoints to\tType\n@\t203.0.113.7\tA record\nwww\tsites.hearth.example\tCNAME',
    ['@ A 203.0.113.7', 'www CNAME sites.hearth.example.'],
  ],
  [
    'a table drawn with bars',
    '| Type | Host | Value |\n|------|------|-------|\n| A | @ | 203.0.113.7 |\n| AAAA | @ | 2001:DB8::7 |\n| TXT | _hearth | hearth-site=9f2c |',
    ['@ A 203.0.113.7', '@ AAAA 2001:db8::7', '_hearth TXT "hearth-site=9f2c"'],
  ],
  [
    'a table without a head',
    'A    @      203.0.113.7\nA    www    203.0.113.7\nTXT    @    "hearth=1"',
    ['@ A 203.0.113.7', 'www A 203.0.113.7', '@ TXT "hearth=1"'],
  ],
  [
    'a table in HTML',
    '<h2>DNS</h2><table><tr><th>Type</th><th>Name</th><th>Value</th></tr><tr><td>CNAME</td><td>www</td><td><code>sites.hearth.example</code></td></tr><tr><td>A</td><td>@</td><td>203.0.113.7</td></tr></table>',
    ['www CNAME sites.hearth.example.', '@ A 203.0.113.7'],
  ],
  [
    'fields in HTML',
    '<dl><dt>Record type</dt><dd>TXT</dd><dt>Host</dt><dd>@</dd><dt>Value</dt><dd>hearth-verify=ab12cd</dd></dl>',
    ['@ TXT "hearth-verify=ab12cd"'],
  ],
  [
    'fields with colons',
    'Type: CNAME\nHost: www\nPoints to: sites.hearth.example\n\nType: A\nHost: @\nPoints to: 203.0.113.7',
    ['www CNAME sites.hearth.example.', '@ A 203.0.113.7'],
  ],
  ['fields whose values stand below', 'Type\nTXT\nName\n_hearth\nContent\nsite=choir', ['_hearth TXT "site=choir"']],
  [
    'nameservers as a list',
    'Your nameservers:\n\nns1.hearth.example\nns2.hearth.example\n',
    ['nameserver ns1.hearth.example.', 'nameserver ns2.hearth.example.'],
  ],
  [
    'nameservers with numbers',
    'Nameserver 1: north-01.hearth.example\nNameserver 2: south-02.hearth.example.',
    ['nameserver north-01.hearth.example.', 'nameserver south-02.hearth.example.'],
  ],
  [
    'nameservers with bullets',
    'Name servers\n- alpha.hearth-dns.example\n- beta.hearth-dns.example',
    ['nameserver alpha.hearth-dns.example.', 'nameserver beta.hearth-dns.example.'],
  ],
  [
    'nameservers in a sentence',
    'Please change your nameservers to ns1.hearth.example and ns2.hearth.example.',
    ['nameserver ns1.hearth.example. ?', 'nameserver ns2.hearth.example. ?'],
  ],
  [
    'a welcome mail',
    'Dear customer,\n\nyour site is ready.\n\nServer IP: 203.0.113.7\nIPv6: 2001:db8::7\nFTP user: choir42\n\nKind regards',
    ['address 203.0.113.7', 'address 2001:db8::7'],
  ],
  ['an address in a sentence', 'To go live, point your domain to the IP address 203.0.113.7.', ['address 203.0.113.7 ?']],
  [
    'records in sentences',
    'Create an A record for @ with the value 203.0.113.7.\nThen add a CNAME record named www pointing to sites.hearth.example.',
    ['@ A 203.0.113.7 ?', 'www CNAME sites.hearth.example. ?'],
  ],
  ['a token in a sentence', 'Add a TXT record "hearth-domain=4f9a2b" to your domain to prove that it is yours.', ['@ TXT "hearth-domain=4f9a2b" ?']],
  ['German', 'Typ: A\nHostname: @\nWert: 203.0.113.7\n\nTyp: CNAME\nName: www\nZiel: sites.herd.example', ['@ A 203.0.113.7', 'www CNAME sites.herd.example.']],
  [
    'German mail',
    'Ihre IP-Adresse: 203.0.113.7\nNameserver: ns1.herd.example, ns2.herd.example',
    ['address 203.0.113.7 ?', 'nameserver ns1.herd.example.', 'nameserver ns2.herd.example.'],
  ],
  [
    'French',
    'Type : CNAME\nNom : www\nCible : sites.foyer.example\n\nServeurs de noms :\ndns1.foyer.example\ndns2.foyer.example',
    ['www CNAME sites.foyer.example.', 'nameserver dns1.foyer.example.', 'nameserver dns2.foyer.example.'],
  ],
  ['Spanish', 'Tipo\tNombre\tValor\nA\t@\t203.0.113.7\nTXT\t_hogar\tsitio=coro', ['@ A 203.0.113.7', '_hogar TXT "sitio=coro"']],
  [
    'Dutch',
    'Soort: TXT\nNaam: @\nWaarde: haard-bewijs=77aa\nNaamservers:\nns0.haard.example\nns1.haard.example',
    ['@ TXT "haard-bewijs=77aa"', 'nameserver ns0.haard.example.', 'nameserver ns1.haard.example.'],
  ],
  ['Italian', 'Tipo: A\nNome: @\nValore: 203.0.113.7\nIndirizzo IPv6: 2001:db8::7', ['@ A 203.0.113.7', 'address 2001:db8::7']],
  [
    'mail records',
    'Type\tHost\tPriority\tTarget\nMX\t@\t10\tmx1.hearth.example\nMX\t@\t20\tmx2.hearth.example',
    ['@ MX 10 mx1.hearth.example.', '@ MX 20 mx2.hearth.example.'],
  ],
  ['a priority before the value', 'Type: MX\nName: @\nValue: 10 mx.hearth.example', ['@ MX 10 mx.hearth.example.']],
  [
    'words for the domain itself',
    'Type | Name | Value\nA | (root) | 203.0.113.7\nA | yourdomain.example | 203.0.113.8\nCNAME | www.yourdomain.example | sites.hearth.example',
    ['@ A 203.0.113.7', '@ A 203.0.113.8', 'www CNAME sites.hearth.example.'],
  ],
  [
    'the client’s own name as the owner',
    'Type\tName\tValue\nTXT\t_hearth.choir.example\tsite=1\nA\tchoir.example\t203.0.113.7',
    ['_hearth TXT "site=1"', '@ A 203.0.113.7'],
  ],
  ['the client’s own name as the target', 'Type\tName\tValue\nCNAME\twww\tchoir.example', ['www CNAME choir.example. ?']],
  [
    'two aliases for one name',
    'Type\tName\tValue\nCNAME\twww\tone.hearth.example\nCNAME\twww\ttwo.hearth.example',
    ['www CNAME one.hearth.example. ?', 'www CNAME two.hearth.example. ?'],
  ],
  [
    'values that are none',
    'Type\tName\tValue\nA\t@\t203.0.113.999\nAAAA\t@\t203.0.113.7\nCNAME\twww\thttps://sites.hearth.example/',
    ['not understood: A @ 203.0.113.999', 'not understood: AAAA @ 203.0.113.7', 'not understood: CNAME www https://sites.hearth.example/'],
  ],
  [
    'certificates',
    'Record\tHost\tValue\nCAA\t@\t0 issue "certs.hearth.example"\nCNAME\t_acme-challenge\tchoir.certs.hearth.example',
    ['@ CAA 0 issue "certs.hearth.example"', '_acme-challenge CNAME choir.certs.hearth.example.'],
  ],
  [
    'a record whole in a cell of a page, beside words about it',
    '<table><tr><th>To prove that it is yours</th><td>_hearth TXT hearth-site=9f2c41</td></tr><tr><th>Your site is at</th><td>203.0.113.7<br>alias: sites.hearth.example</td></tr></table>\n<form><button>Check now</button></form><p><a href="/">All domains</a></p>',
    ['_hearth TXT "hearth-site=9f2c41"'],
  ],
  ['prose that gives nothing', 'Welcome! Your plan allows 3 sites. Our support answers within 24 hours; version 4.2.1 of the panel is out.', []],
  ['a quote that runs over two cells', '"A | TXT record ns1.hearth.example "', ['not understood: "A TXT record ns1.hearth.example "']],
  [
    'two values in one sentence',
    'Your CNAME record for www should be sites.hearth.example or edge.hearth.example.',
    ['www CNAME sites.hearth.example. ?', 'www CNAME edge.hearth.example. ?'],
  ],
];

describe('a host’s page or mail that is pasted', () => {
  it.each(PAGES)('%s', (_what, text, expected) => {
    expect(brief(text)).toEqual(expected.filter((line) => !line.startsWith('not understood')));
  });
});
