import { STRANGE_SITES } from './hosts';

export interface ScenarioDomain {
  readonly zone: string;
  readonly client: string;
  readonly extra: readonly string[];
  /** The DNS host it stands at; Oldquay where it is absent. */
  readonly at?: string;
  /** Where its website is; at Saltmarsh where it is absent. */
  readonly site?: { readonly addresses: readonly [string, string]; readonly alias: string };
  /** Nothing is delegated to. */
  readonly unused?: boolean;
  /** Where it is registered; Harbourlight where it is absent. */
  readonly registrar?: 'cliffpath';
  /** What the registry says of it beside the usual. */
  readonly registered?: { readonly statuses?: readonly string[]; readonly daysLeft?: number };
  /** Nameservers that the parent delegates to and the zone does not name, or the reverse. */
  readonly leftAtParent?: readonly string[];
  readonly leftInZone?: readonly string[];
}

/** The policy for mail of whoever announces one (RFC 8461 §3.2): the page of its own host, at the web host where that leads. */
export const MAIL_POLICY = {
  path: '/.well-known/mta-sts.txt',
  text: 'version: STSv1\r\nmode: enforce\r\nmx: *.brinepost.example\r\nmax_age: 1209600\r\n',
} as const;

/** The domains of the demo with their owner as people call it. */
export const DOMAINS: readonly ScenarioDomain[] = [
  {
    zone: 'lighthouse-museum.example.',
    client: 'Lighthouse museum',
    extra: [
      'tickets CNAME shop.brinepost.example.',
      'archive A 192.0.2.77',
      '_dmarc TXT "v=DMARC1; p=quarantine; rua=mailto:post@lighthouse-museum.example"',
      'odd\\.label TXT "an escaped dot"',
      'blob TYPE65400 \\# 6 00ff10203040',
    ],
  },
  {
    zone: 'canoe-yard.example.',
    client: 'Canoe yard',
    extra: ['rental CNAME sites.saltmarsh.example.', '_sip._tcp SRV 10 20 5060 voice.brinepost.example.', '*.boats A 198.51.100.80'],
  },
  { zone: 'tidewater-choir.example.', client: 'Tidewater choir', extra: ['scores A 198.51.100.80', 'radio CNAME canoe-yard.example.'] },
  { zone: 'xn--crmerie-alder-xgb.example.', client: 'Crèmerie Alder', extra: ['bestellung CNAME sites.saltmarsh.example.', '@ CAA 0 issue "certs.example"'] },
  {
    zone: 'gull-radio.example.',
    client: 'Gull community radio',
    extra: ['stream A 192.0.2.90', 'stream AAAA 2001:db8:90::1', '_icy._tcp SRV 0 0 8000 stream', '@ TXT "site-proof=k2f9w1"'],
  },
  {
    zone: 'seed-library.example.',
    client: 'Seed library',
    registrar: 'cliffpath',
    at: 'pebbledock',
    extra: [
      'catalogue CNAME sites.saltmarsh.example.',
      'swap A 198.51.100.80',
      'deep.archive A 192.0.2.78',
      'unheard-of TXT "nobody knows this name"',
      '_25._tcp.mail TLSA 3 1 1 0123456789abcdef0123456789abcdef0123456789abcdef0123456789abcdef',
      '_mta-sts TXT "v=STSv1; id=20270201"',
      'mta-sts CNAME sites.saltmarsh.example.',
    ],
    registered: { statuses: ['client update prohibited', 'client transfer prohibited'], daysLeft: 24 },
    leftAtParent: ['ns2.oldquay.example.'],
  },
  {
    zone: 'regatta-club.example.',
    client: 'Regatta club',
    at: 'brackenfold',
    extra: ['results CNAME sites.saltmarsh.example.', 'stream A 192.0.2.61', 'stream A 192.0.2.62', 'stream A 192.0.2.63', '* CNAME sites.saltmarsh.example.'],
  },
  {
    zone: 'allotment-society.example.',
    client: 'Allotment society',
    extra: Array.from(
      { length: 290 },
      (_, i) =>
        `plot-${String(i + 1).padStart(3, '0')} ${i % 3 === 0 ? 'CNAME sites.saltmarsh.example.' : i % 3 === 1 ? `A 192.0.2.${100 + (i % 100)}` : `TXT "plot ${i + 1}, waiting list"`}`,
    ),
  },
  {
    zone: 'ferry-timetable.example.',
    client: 'Ferry timetable',
    at: 'hollowell',
    site: STRANGE_SITES.hollowell,
    extra: ['piers A 198.51.100.130', '_dmarc TXT "v=DMARC1; p=none; rua=mailto:post@ferry-timetable.example"', 'tides CNAME tides.brinepost.example.'],
  },
];

/** Registered, and never used: the parent denies it. */
export const UNUSED: readonly ScenarioDomain[] = [{ zone: 'samphire-kitchen.example.', client: 'Samphire kitchen', extra: [], unused: true }];
