import { readText } from './readText';

/** What people had in hand, each as it was pasted, and what is read of it. */
const TEXTS: readonly (readonly [what: string, as: 'old' | 'new', text: string, finds: readonly string[]])[] = [
  [
    'a mail that says what to remove',
    'new',
    'Hi,\n\nplease set the following DNS records for your domain:\n\nA record for koor.example -> 203.0.113.80\nA record for www.koor.example -> 203.0.113.80\n\nYou can remove the old A record (192.0.2.44). Do NOT change your MX records.\n\nKind regards\nSupport team, Thornwick\nsupport@thornwick.example\n',
    ['ask @ A 203.0.113.80', 'ask www A 203.0.113.80', 'out @ A 192.0.2.44'],
  ],
  [
    'numbered steps with fields',
    'new',
    'To connect your domain, log in to your DNS provider and do the following:\n\n1. Delete all existing A, AAAA and CNAME records for @ and www\n2. Create an A record\n   Host: @\n   Points to: 203.0.113.80\n3. Create a CNAME record\n   Host: www\n   Points to: sites.thornwick.example\n4. Wait up to 48 hours\n',
    ['sure @ A 203.0.113.80', 'sure www CNAME sites.thornwick.example.'],
  ],
  [
    'nameservers with addresses, or a record',
    'new',
    'Voor uw domein koor.example gebruikt u onze nameservers:\n\nns1.thornwick.example (203.0.113.1)\nns2.thornwick.example (203.0.113.2)\nns3.thornwick.example (203.0.113.3)\n\nWilt u liever uw eigen nameservers blijven gebruiken? Wijzig dan het A-record naar 203.0.113.80.\n',
    ['sure nameserver ns1.thornwick.example.', 'sure nameserver ns2.thornwick.example.', 'sure nameserver ns3.thornwick.example.', 'ask @ A 203.0.113.80'],
  ],
  [
    'German, nameservers as a list and records in a sentence',
    'new',
    'Du musst bei deinem Registrar folgende Nameserver eintragen:\n - ns-11.wolkendns.example\n - ns-12.wolkendns.example\n\nDer A-Record ist 203.0.113.80, www bitte als CNAME auf koor.example.\n',
    ['out @ A 203.0.113.80', 'out www CNAME koor.example.'],
  ],
  [
    'two options and an example',
    'new',
    'Option A (recommended): change your nameservers to\ndns1.thornwick.example\ndns2.thornwick.example\n\nOption B: keep your DNS and add these records\n@     A      203.0.113.80\n@     A      203.0.113.81\nwww   CNAME  sites.thornwick.example.\n\nExample: if your domain is example.org, the record for www would be www.example.org CNAME sites.thornwick.example.\n',
    [
      'ask nameserver dns1.thornwick.example.',
      'ask nameserver dns2.thornwick.example.',
      'sure @ A 203.0.113.80',
      'sure @ A 203.0.113.81',
      'sure www CNAME sites.thornwick.example.',
      'out www CNAME www.example.org.',
      'out www CNAME sites.thornwick.example.',
    ],
  ],
  [
    'what is and what should be, a line each',
    'new',
    'Required DNS changes\n❌ koor.example A 192.0.2.44 → should be 203.0.113.80\n❌ www.koor.example A 192.0.2.44 → should be CNAME sites.thornwick.example\n✅ MX ok\n',
    ['out @ A 192.0.2.44', 'ask @ A 203.0.113.80', 'out www A 192.0.2.44', 'ask www CNAME sites.thornwick.example.'],
  ],
  [
    'Spanish, two records in one sentence',
    'new',
    'Hola, para que la web funcione tienes que cambiar el registro A del dominio a 203.0.113.80 y el CNAME de www a sites.thornwick.example. Los registros MX no se tocan. El TTL puede ser 3600.\n',
    ['ask @ A 203.0.113.80', 'ask www CNAME sites.thornwick.example.'],
  ],
  [
    'Italian, records and nameservers in one line',
    'new',
    'Il record A di koor.example deve puntare a 203.0.113.80; www deve essere un CNAME verso koor.example. Nameserver: ns1.thornwick.example e ns2.thornwick.example.\n',
    ['ask @ A 203.0.113.80', 'ask www CNAME koor.example.', 'ask nameserver ns1.thornwick.example.', 'ask nameserver ns2.thornwick.example.'],
  ],
  [
    'Dutch, titles that name the type, old and new value',
    'new',
    'CNAME-record toevoegen\nNaam: www\nDoel: sites.thornwick.example\n\nA-record wijzigen\nNaam: @\nOud: 192.0.2.44\nNieuw: 203.0.113.80\n',
    ['sure www CNAME sites.thornwick.example.', 'sure @ A 203.0.113.80'],
  ],
  [
    'a line for a hosts file',
    'new',
    'Your site has been migrated to server web12.thornwick.example (203.0.113.80).\nTest it with your hosts file:\n203.0.113.80 koor.example www.koor.example\nFTP: ftp.thornwick.example, user koor\nNameservers: ns1.thornwick.example ns2.thornwick.example\n',
    [
      'ask address 203.0.113.80',
      'ask @ A 203.0.113.80',
      'ask www A 203.0.113.80',
      'sure nameserver ns1.thornwick.example.',
      'sure nameserver ns2.thornwick.example.',
    ],
  ],
  [
    'two aliases for certificates',
    'new',
    'SSL validation:\nAdd CNAME _a1b2c3d4.koor.example.  to  _f00ba4.validations.thornwick.example.\nAdd CNAME _e5f6.www.koor.example.  to  _0ff1ce.validations.thornwick.example.\n',
    ['ask _a1b2c3d4 CNAME _f00ba4.validations.thornwick.example.', 'ask _e5f6.www CNAME _0ff1ce.validations.thornwick.example.'],
  ],
  [
    'a table that says what to remove',
    'new',
    '| Type  | Host | Value | TTL | Status |\n| A | @ | 192.0.2.44 | Automatic | ⚠ Remove |\n| A | @ | 203.0.113.80 | Automatic | Add |\n| CNAME | www | thornwick-sites.example | Automatic | Add |\n',
    ['out @ A 192.0.2.44', 'sure @ A 203.0.113.80', 'sure www CNAME thornwick-sites.example.'],
  ],
  [
    'two addresses in one field',
    'new',
    'Record Type: CNAME\nHost/Name: www\nPoints To: cust-8821.sites.thornwick.example\nTTL: 1 Hour (default)\n\nRecord Type: A\nHost/Name: @ (or leave blank)\nPoints To: 203.0.113.80 AND 203.0.113.81\nTTL: 1 Hour\n',
    ['sure www CNAME cust-8821.sites.thornwick.example.', 'sure @ A 203.0.113.80', 'sure @ A 203.0.113.81'],
  ],
  [
    'nameservers in the place of others',
    'new',
    '1) Login to your registrar. 2) Replace the nameservers ns1.oudhost.example and ns2.oudhost.example by ns1.thornwick.example and ns2.thornwick.example. 3) Save.\n',
    ['ask nameserver ns1.thornwick.example.', 'ask nameserver ns2.thornwick.example.'],
  ],
  [
    'a page of cards without blanks between their parts',
    'new',
    '<div class="record"><span>Type</span><b>A</b><span>Host</span><b>@</b><span>Value</span><code>203.0.113.80</code><button>Copy</button></div>\n<div class="record"><span>Type</span><b>CNAME</b><span>Host</span><b>www</b><span>Value</span><code>sites.thornwick.example</code><button>Copy</button></div>\n',
    ['sure @ A 203.0.113.80', 'sure www CNAME sites.thornwick.example.'],
  ],
  [
    'required, and what is there',
    'new',
    '- Domain: koor.example\n- Required A record: 203.0.113.80 (currently 192.0.2.44)\n- Required CNAME for www: sites.thornwick.example (currently koor.example)\n',
    ['ask @ A 203.0.113.80', 'out @ A 192.0.2.44', 'ask www CNAME sites.thornwick.example.'],
  ],
  [
    'a remark behind a text',
    'new',
    'DKIM:\nHost: s1._domainkey.koor.example\nType: CNAME\nValue: s1.domainkey.u8821.mailpost.example\n\nSPF:\nHost: koor.example\nType: TXT\nValue: v=spf1 include:spf.mailpost.example ~all   (merge with the existing record!)\n',
    [
      'sure s1._domainkey CNAME s1.domainkey.u8821.mailpost.example.',
      'ask @ TXT "v=spf1 include:spf.mailpost.example ~all   (merge with the existing record!)"',
    ],
  ],
  [
    'German, one value in the place of another',
    'new',
    'Ersetzen Sie den A-Record 192.0.2.44 durch 203.0.113.80 und den AAAA-Record 2001:db8::44 durch 2001:db8:80::1.\n',
    ['out @ A 192.0.2.44', 'ask @ A 203.0.113.80', 'out @ AAAA 2001:db8::44', 'ask @ AAAA 2001:db8:80::1'],
  ],
  [
    'French, the same for two names',
    'new',
    "Veuillez remplacer l'adresse actuelle 192.0.2.44 par 203.0.113.80 pour koor.example et www.koor.example.\n",
    ['ask @ A 203.0.113.80', 'ask www A 203.0.113.80'],
  ],
  [
    'Dutch, the priority in brackets',
    'old',
    'Hoi Marloes,\n\nHier de gegevens van de huidige DNS, ik heb ze overgetypt uit het paneel:\n\n  naam            type    waarde                               ttl\n  koor.example    A       192.0.2.44                           1 uur\n  www             A       192.0.2.44                           1 uur\n  mail            CNAME   mx.postduif.example                  1 dag\n  koor.example    MX      mx.postduif.example (prio 10)        1 dag\n\nLet op: ftp mag weg.\n\nGroet,\nBeheer\n',
    ['sure @ A 192.0.2.44', 'sure www A 192.0.2.44', 'sure mail CNAME mx.postduif.example.', 'sure @ MX 10 mx.postduif.example.'],
  ],
  [
    'cards whose value is labelled by its type',
    'old',
    'DNS Zone Editor\n\nType: A\nName: koor.example.\nAddress: 192.0.2.44\nTTL: 14400\nEdit | Delete\n\nType: CNAME\nName: www.koor.example.\nRecord: koor.example\nTTL: 14400\nEdit | Delete\n\nType: MX\nName: koor.example.\nPriority: 0\nDestination: koor.example\nTTL: 14400\nEdit | Delete\n',
    ['sure @ A 192.0.2.44', 'sure www CNAME koor.example.', 'sure @ MX 0 koor.example.'],
  ],
  [
    'columns of which one is too narrow',
    'old',
    'Current records for koor.example (exported 2026-11-30 14:02)\nA     @              192.0.2.44      Fronted   Auto\nA     cloud          192.0.2.45      Direct    Auto\nCNAME www            koor.example    Fronted   Auto\nMX    @           10 mail.koor.example   Direct    Auto\nSRV   _sip._tls   100 1 443 sipdir.telefon.example   Direct    1 hr\n',
    [
      'ask @ A 192.0.2.44',
      'ask cloud A 192.0.2.45',
      'ask www CNAME koor.example.',
      'ask @ MX 10 mail.koor.example.',
      'ask _sip._tls SRV 100 1 443 sipdir.telefon.example.',
    ],
  ],
  [
    'a program that asks, with prompts',
    'old',
    '> set type=mx\n> koor.example\nServer:  router.local\nAddress:  192.168.1.1\n\nNon-authoritative answer:\nkoor.example    MX preference = 10, mail exchanger = mail.koor.example\nkoor.example    MX preference = 20, mail exchanger = backup.postduif.example\n\n> set type=txt\n> koor.example\nServer:  router.local\nAddress:  192.168.1.1\n\nNon-authoritative answer:\nkoor.example    text =\n\n        "v=spf1 mx -all"\n',
    ['sure @ MX 10 mail.koor.example.', 'sure @ MX 20 backup.postduif.example.', 'sure @ TXT "v=spf1 mx -all"'],
  ],
  [
    'German sentences',
    'old',
    'Die Domain koor.example zeigt auf 192.0.2.44, www ist ein CNAME auf die Hauptdomain.\nDer MX ist mail.koor.example mit Priorität 10, und mail.koor.example hat die IP 192.0.2.46.\nAußerdem gibt es noch autodiscover als CNAME auf auto.postbote.example.\n',
    [
      'ask @ A 192.0.2.44',
      'ask www CNAME koor.example.',
      'ask @ MX 10 mail.koor.example.',
      'ask mail A 192.0.2.46',
      'ask autodiscover CNAME auto.postbote.example.',
    ],
  ],
  [
    'a row that is switched off',
    'old',
    'Domain;Host;Typ;Prio;Wert;TTL;Aktiv\nkoor.example;@;A;;192.0.2.44;3600;ja\nkoor.example;www;CNAME;;koor.example.;3600;ja\nkoor.example;@;MX;10;mail.koor.example.;3600;ja\nkoor.example;alt;A;;192.0.2.99;3600;nein\n',
    ['sure @ A 192.0.2.44', 'sure www CNAME koor.example.', 'sure @ MX 10 mail.koor.example.', 'ask alt A 192.0.2.99'],
  ],
  [
    'sections with dashes',
    'old',
    'A Record\n@ - 192.0.2.44\nmail - 192.0.2.46\n\nCNAME Record\nwww - @\nautodiscover - auto.postbote.example\n\nMX Record\n@ - mail.koor.example - 10\n\nTXT Record\n@ - v=spf1 mx -all\n',
    [
      'sure @ A 192.0.2.44',
      'sure mail A 192.0.2.46',
      'sure www CNAME koor.example.',
      'sure autodiscover CNAME auto.postbote.example.',
      'ask @ MX 10 mail.koor.example.',
      'sure @ TXT "v=spf1 mx -all"',
    ],
  ],
  [
    'labels of a language that is not known',
    'old',
    'Nimi: @\nTyyppi: A\nArvo: 192.0.2.44\n\nNimi: www\nTyyppi: CNAME\nArvo: koor.example.\n',
    ['sure @ A 192.0.2.44', 'sure www CNAME koor.example.'],
  ],
  [
    'labels and values in one line',
    'old',
    'TYPE: A HOST: @ VALUE: 192.0.2.44 TTL: 3600\nTYPE: A HOST: www VALUE: 192.0.2.44 TTL: 3600\nTYPE: MX HOST: @ VALUE: mail.koor.example PRIORITY: 10 TTL: 3600\nTYPE: TXT HOST: @ VALUE: v=spf1 mx ~all TTL: 3600\n',
    ['sure @ A 192.0.2.44', 'sure www A 192.0.2.44', 'sure @ MX 10 mail.koor.example.', 'sure @ TXT "v=spf1 mx ~all"'],
  ],
  [
    'rows that are commented out',
    'old',
    '; koor.example zone\n@ IN A 192.0.2.44\n;@ IN A 192.0.2.40\n# www IN A 192.0.2.44\nwww IN CNAME @\n// mail IN A 192.0.2.46\nmail IN A 192.0.2.47\n',
    ['sure @ A 192.0.2.44', 'sure www CNAME koor.example.', 'sure mail A 192.0.2.47'],
  ],
  [
    'old and new value side by side',
    'old',
    'Record | Aktueller Wert | Neuer Wert\nA koor.example | 192.0.2.44 | 203.0.113.80\nA www.koor.example | 192.0.2.44 | 203.0.113.80\nMX koor.example | mail.koor.example | bleibt\n',
    ['sure @ A 192.0.2.44', 'sure www A 192.0.2.44', 'ask @ MX 10 mail.koor.example.'],
  ],
  [
    'values first',
    'old',
    '192.0.2.44    A     @\n192.0.2.44    A     www\nmail.koor.example    MX 10    @\nv=spf1 mx -all    TXT    @\n',
    ['sure @ A 192.0.2.44', 'sure www A 192.0.2.44', 'sure @ MX 10 mail.koor.example.', 'sure @ TXT "v=spf1 mx -all"'],
  ],
  [
    'service and protocol apart',
    'old',
    'SRV Records\nService   Protocol  Host   Priority  Weight  Port  Target\n_sip      _tls      @      100       1       443   sipdir.telefon.example\n_sipfederationtls  _tcp  @  100  1  5061  sipfed.telefon.example\n',
    ['sure _sip._tls SRV 100 1 443 sipdir.telefon.example.', 'sure _sipfederationtls._tcp SRV 100 1 5061 sipfed.telefon.example.'],
  ],
  [
    'titles with counts, and brackets',
    'old',
    'A (2)\n  koor.example → 192.0.2.44 (TTL 3600)\n  www.koor.example → 192.0.2.44 (TTL 3600)\nMX (1)\n  koor.example → mail.koor.example (Priorität 10, TTL 3600)\nTXT (1)\n  koor.example → "v=spf1 mx -all" (TTL 3600)\n',
    ['sure @ A 192.0.2.44', 'sure www A 192.0.2.44', 'ask @ MX 10 mail.koor.example.', 'sure @ TXT "v=spf1 mx -all"'],
  ],
  [
    'records within settings',
    'old',
    'local-data: "koor.example. 3600 IN A 192.0.2.44"\nlocal-data: "www.koor.example. 3600 IN A 192.0.2.44"\n',
    ['sure @ A 192.0.2.44', 'sure www A 192.0.2.44'],
  ],
  [
    'a plan below what is there',
    'old',
    '@\tA\t192.0.2.44\nwww\tA\t192.0.2.44\nmail\tA\t192.0.2.46\n@\tMX\t10\tmail\n@\tTXT\t"v=spf1 mx -all"\n------------------------------------------------\nNEW SERVER (planned):\n@\tA\t203.0.113.80\nwww\tA\t203.0.113.80\n',
    [
      'sure @ A 192.0.2.44',
      'sure www A 192.0.2.44',
      'sure mail A 192.0.2.46',
      'sure @ MX 10 mail.koor.example.',
      'sure @ TXT "v=spf1 mx -all"',
      'out @ A 203.0.113.80',
      'out www A 203.0.113.80',
    ],
  ],
  [
    'labels without marks',
    'old',
    'Type MX   Host @   Waarde 10 mail.koor.example.   TTL 1 uur\nType A   Host @   Waarde 192.0.2.44   TTL 1 uur\n',
    ['sure @ MX 10 mail.koor.example.', 'sure @ A 192.0.2.44'],
  ],
  [
    'fields of mail and services',
    'old',
    'Name: koor.example\nType: MX\nMail server: mail.koor.example\nPreference: 5\n\nName: koor.example\nType: TXT\nText: v=spf1 mx -all\n\nName: _sip._tcp\nType: SRV\nPriority: 0\nWeight: 5\nPort: 5060\nTarget: sip.koor.example\n',
    ['sure @ MX 5 mail.koor.example.', 'sure @ TXT "v=spf1 mx -all"', 'sure _sip._tcp SRV 0 5 5060 sip.koor.example.'],
  ],
  [
    'remarks in brackets',
    'old',
    'koor.example. 1 IN A 192.0.2.44 [fronted]\nwww 1 IN CNAME koor.example. [fronted]\n',
    ['ask @ A 192.0.2.44', 'ask www CNAME koor.example.'],
  ],
  [
    'names and addresses without types',
    'old',
    'The zone has these records according to the panel screenshot (typed by hand, may contain mistakes):\n@ -> 192.0.2.44\nwww -> 192.0.2.44\nmail -> 192.0.2.46\nMX -> mail (10)\n',
    ['ask @ A 192.0.2.44', 'ask www A 192.0.2.44', 'ask mail A 192.0.2.46', 'ask @ MX 10 mail.koor.example.'],
  ],
  [
    'lines that are set as they stand in a page',
    'old',
    '<pre>\nkoor.example.   IN  A   192.0.2.44\nwww             IN  A   192.0.2.44\n</pre>\n<p>Old copy from 2019: koor.example. IN A 192.0.2.10</p>\n',
    ['sure @ A 192.0.2.44', 'sure www A 192.0.2.44'],
  ],
  [
    'names that hold their types',
    'old',
    '{"koor.example": {"A": ["192.0.2.44"], "MX": [[10, "mail.koor.example."]], "NS": ["ns1.oud.example."]}, "www.koor.example": {"CNAME": "koor.example."}}',
    ['sure @ A 192.0.2.44', 'sure @ MX 10 mail.koor.example.', 'sure @ NS ns1.oud.example.', 'sure www CNAME koor.example.'],
  ],
  [
    'a name that is a label as well',
    'old',
    "zones:\n  koor.example:\n    records:\n      '':\n        - type: A\n          values: [192.0.2.44]\n        - type: TXT\n          value: v=spf1 mx -all\n      www:\n        type: CNAME\n        value: koor.example.\n      old:\n        type: A\n        value: 192.0.2.9\n        enabled: false\n",
    ['sure @ A 192.0.2.44', 'sure @ TXT "v=spf1 mx -all"', 'sure www CNAME koor.example.', 'ask old A 192.0.2.9'],
  ],
  [
    'German, types in brackets',
    'old',
    'Es sind folgende Einträge vorhanden:\n- @ (A): 192.0.2.44\n- www (A): 192.0.2.44\n- mail (A): 192.0.2.46\n- @ (MX): mail.koor.example, Priorität 10\n- @ (TXT): "v=spf1 mx -all"\n',
    ['sure @ A 192.0.2.44', 'sure www A 192.0.2.44', 'sure mail A 192.0.2.46', 'sure @ MX 10 mail.koor.example.', 'sure @ TXT "v=spf1 mx -all"'],
  ],
  [
    'a row that is not active',
    'old',
    'koor.example A 192.0.2.44\nkoor.example A 192.0.2.45 (backup, not active)\nwww.koor.example A 192.0.2.44\nmail.koor.example A ??? ask hoster\n',
    ['sure @ A 192.0.2.44', 'ask @ A 192.0.2.45', 'sure www A 192.0.2.44'],
  ],
  [
    'an example among rows',
    'old',
    'A  @  192.0.2.44\nA  www  192.0.2.44\nTest:\nA  test  192.0.2.77\nExample:\nA  example  192.0.2.88\n',
    ['sure @ A 192.0.2.44', 'sure www A 192.0.2.44', 'sure test A 192.0.2.77', 'out example A 192.0.2.88'],
  ],
];

describe('a text as somebody pasted it', () => {
  it.each(TEXTS)('%s', (_what, as, text, expected) => {
    const { finds } = readText(text, { zone: 'koor.example.', as, own: [] });
    const brief = finds.flatMap(({ kind, trust, owner, type, data }) =>
      kind === 'name' ? [] : [`${trust} ${kind === 'record' ? `${owner} ${type}` : kind} ${data}`.trim()],
    );
    expect(brief).toEqual(expected);
  });
});
