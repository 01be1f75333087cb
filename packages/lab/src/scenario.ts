import { createHash } from 'node:crypto';
import { DnsHabits, EntryStyle, HostTask, Name, RegistrarForm, Requirement, TsigKey } from '@wanderon/core';

import { REGISTRARS, REGISTRAR_FORMS } from './registrars';

/** Fennel & Tide, the agency of the demo, and everybody around it. All invented, all under .example. */
export const START = Date.UTC(2027, 2, 12, 13, 5) / 1000;

/** TTL in seconds of delegations in the parent zone. */
export const DELEGATION_TTL = 21_600;

export const NIC = {
  zone: 'example.',
  servers: [
    { name: 'ns1.nic.example.', address: '192.0.2.11' },
    { name: 'ns2.nic.example.', address: '192.0.2.12' },
  ],
  lag: 240,
};
/** Where the registry tells about registrations (RFC 9082). */
export const RDAP = { name: 'rdap.nic.example', address: '192.0.2.20' };
export const ROOT = { name: 'root.lab.test.', address: '192.0.2.1' };

export interface ScenarioHost {
  readonly id: string;
  readonly name: string;
  readonly role: 'dns' | 'web' | 'registrar';
  readonly nameservers: readonly { readonly name: string; readonly address: string }[];
  readonly addresses: readonly string[];
  /** Addresses with which it answers for names that it fronts. */
  readonly fronts: readonly string[];
  /** How it goes about its zones, as the agency has noted it. */
  readonly habits?: Partial<DnsHabits>;
  /** How its panel wants names and values typed, as the agency has noted it. */
  readonly entry?: EntryStyle;
  readonly aliasTarget: string | undefined;
  /** Of a web host: who makes its certificates. */
  readonly issuers?: readonly string[];
  /** Of a web host: titles of its pages for domains that it does not know, which it answers with 200. */
  readonly holding?: readonly string[];
  /** Where sites stand before their domains lead there, as agencies note it. */
  readonly provisional?: string;
  readonly requires: readonly (Pick<Requirement, 'owner' | 'type' | 'data'> & Partial<Requirement>)[];
  readonly tasks?: readonly Omit<HostTask, 'id'>[];
  /** False: a zone is there only once the domain is delegated to it. */
  readonly holdsEarly?: boolean;
  /** Of a registrar: how its page wants nameservers, as the agency has noted it. */
  readonly form?: RegistrarForm;
  readonly key: { readonly name: string; readonly algorithm: 'hmac-sha256'; readonly secret: string } | undefined;
  readonly note: string;
  readonly sites?: SiteHabits;
}

/** DNS hosts into whose panels everything is typed, with what the agency has noted of their habits. */
const HAND_HOSTS: readonly (Pick<ScenarioHost, 'id' | 'name' | 'note' | 'tasks' | 'habits'> & { readonly entry: EntryStyle })[] = [
  {
    ...{ id: 'heronsgate', name: 'Heronsgate DNS', note: 'Every record lives an hour there, whatever one wants.' },
    entry: { names: 'relative', apex: 'empty', targetDot: 'either', text: 'bare', longText: 'whole', priority: 'in value', ttls: null },
  },
  {
    ...{ id: 'copperkiln', name: 'Copperkiln DNS', note: 'Names are typed whole, the domain itself too.' },
    entry: { names: 'whole', apex: 'whole', targetDot: 'refused', text: 'bare', longText: 'parts', priority: 'own field', ttls: [] },
  },
  {
    ...{ id: 'driftwood', name: 'Driftwood Zones', note: 'As in a zone file: quotes, and a dot at the end of what is whole.' },
    entry: { names: 'relative', apex: '@', targetDot: 'required', text: 'quoted', longText: 'parts', priority: 'in value', ttls: [60, 600, 7200] },
  },
  {
    ...{ id: 'millrace', name: 'Millrace DNS', note: 'Takes names whole or below the domain.' },
    entry: { names: 'relative', apex: '@', targetDot: 'either', text: 'quoted', longText: 'parts', priority: 'own field', ttls: [900, 14_400] },
  },
  {
    ...{ id: 'rookery', name: 'Rookery DNS', note: 'No TTL can be given.', habits: { company: 'Rookery', locks: ['@ NS'], afterLeaving: 'drops' } },
    tasks: [{ title: 'Add the domain', by: 'us', when: 'before', waits: false, note: 'It asks for a mailbox that is read: the agency’s.' }],
    entry: { names: 'whole', apex: 'whole', targetDot: 'required', text: 'bare', longText: 'parts', priority: 'in value', ttls: null },
  },
  {
    ...{ id: 'tollgate', name: 'Tollgate DNS', note: 'Has no TLSA and no CAA.' },
    entry: {
      names: 'relative',
      apex: '@',
      targetDot: 'refused',
      text: 'bare',
      longText: 'whole',
      priority: 'own field',
      ttls: [300, 1800],
      lacks: ['TLSA', 'CAA'],
    },
  },
];

function key(seed: string, name: string): NonNullable<ScenarioHost['key']> {
  return { name, algorithm: 'hmac-sha256', secret: createHash('sha256').update(`${seed}/${name}`).digest('base64') };
}

export function tsigKey(host: ScenarioHost): TsigKey | undefined {
  return host.key && { name: Name.parse(host.key.name), algorithm: host.key.algorithm, secret: new Uint8Array(Buffer.from(host.key.secret, 'base64')) };
}

export function scenarioHosts(seed: string): ScenarioHost[] {
  const none = { nameservers: [], addresses: [], fronts: [], aliasTarget: undefined, requires: [], key: undefined };
  return [
    {
      ...none,
      id: 'oldquay',
      name: 'Oldquay DNS',
      role: 'dns',
      key: key(seed, 'fennel-tide.oldquay.example.'),
      nameservers: [
        { name: 'ns1.oldquay.example.', address: '198.51.100.11' },
        { name: 'ns2.oldquay.example.', address: '198.51.100.12' },
      ],
      note: 'Transfer and update with our key. Its second server follows after five minutes.',
    },
    {
      ...none,
      id: 'quillmere',
      name: 'Quillmere DNS',
      role: 'dns',
      key: key(seed, 'fennel-tide.quillmere.example.'),
      nameservers: [
        { name: 'ns1.quillmere.example.', address: '203.0.113.51' },
        { name: 'ns2.quillmere.example.', address: '203.0.113.52' },
        { name: 'ns3.quillmere.example.', address: '203.0.113.53' },
      ],
      note: 'Add the domain in its panel first, then push with our key.',
    },
    {
      ...none,
      id: 'pebbledock',
      name: 'Pebbledock DNS',
      role: 'dns',
      nameservers: [
        { name: 'dns-a.pebbledock.example.', address: '198.51.100.31' },
        { name: 'dns-b.pebbledock.example.', address: '198.51.100.32' },
      ],
      entry: { names: 'relative', apex: '@', targetDot: 'refused', text: 'bare', longText: 'whole', priority: 'own field', ttls: [300, 3600, 86_400] },
      note: 'Gives no transfer and takes no updates: everything is typed in its panel. Its second server is lame for some zones.',
    },
    {
      ...none,
      id: 'brackenfold',
      name: 'Brackenfold DNS',
      role: 'dns',
      nameservers: [
        { name: 'edge-1.brackenfold.example.', address: '198.51.100.41' },
        { name: 'edge-2.brackenfold.example.', address: '198.51.100.42' },
      ],
      fronts: ['203.0.113.128/27'],
      habits: { company: 'Brackenfold', locks: ['@ NS'], forwards: ['forward.brackenfold.example'], edge: 'encrypted' },
      entry: { names: 'whole', apex: 'empty', targetDot: 'required', text: 'quoted', longText: 'parts', priority: 'own field', ttls: [120, 1800, 43_200] },
      note: 'Fronts websites with addresses of its own; what is stored is seen in its panel only.',
    },
    {
      ...none,
      id: 'latchford',
      name: 'Latchford DNS',
      role: 'dns',
      key: key(seed, 'fennel-tide.latchford.example.'),
      nameservers: [
        { name: 'east.latchford.example.', address: '203.0.113.61' },
        { name: 'west.latchford.example.', address: '203.0.113.62' },
      ],
      holdsEarly: false,
      note: 'A zone comes into being there when the domain is delegated to it, and is empty then.',
    },
    ...HAND_HOSTS.map((host, index): ScenarioHost => {
      const nameservers = ['one', 'two'].map((word, which) => ({ name: `${word}.${host.id}.example.`, address: `198.51.100.${51 + 10 * index + which}` }));
      return { ...none, ...host, role: 'dns', nameservers };
    }),
    {
      ...none,
      id: 'saltmarsh',
      name: 'Saltmarsh Hosting',
      role: 'web',
      addresses: ['198.51.100.80', '2001:db8:5a17::80'],
      aliasTarget: 'sites.saltmarsh.example.',
      note: 'Closes at the end of the month.',
    },
    {
      ...none,
      id: 'thornwick',
      name: 'Thornwick Web',
      role: 'web',
      addresses: ['203.0.113.80', '2001:db8:7403::80'],
      aliasTarget: 'edge.thornwick.example.',
      issuers: ['certs.example'],
      requires: [{ owner: '_thornwick', type: 'TXT', data: '"site={zone}"' }],
      sites: { plain: true, toFront: ['gull-radio.example.'] },
      note: 'Asks for an ownership token below the apex.',
    },
    {
      ...none,
      id: 'larkspur',
      name: 'Larkspur Sites',
      role: 'web',
      addresses: ['203.0.113.90', '2001:db8:1a2c::90'],
      aliasTarget: 'sites.larkspur.example.',
      issuers: ['certs.example', 'seals.example'],
      holding: ['No site here'],
      provisional: '{label}.sites.larkspur.example',
      requires: [
        { owner: '_larkspur', type: 'TXT', data: '', early: true, ends: 'verified' },
        { owner: '_acme-challenge', type: 'CNAME', data: '{zone}.certs.larkspur.example.' },
      ],
      tasks: [
        { title: 'Add the domain', by: 'us', when: 'before', waits: false, note: 'Its panel then shows the token for _larkspur.' },
        { title: 'Publish the site', by: 'client', when: 'before', waits: false, note: '' },
        {
          title: 'Prove that the domain is ours',
          by: 'us',
          when: 'before',
          waits: true,
          note: 'Press “Check now” in its panel; what it heard before may hold it up for half an hour.',
        },
        {
          title: 'Wait for “connected”',
          by: 'host',
          when: 'after',
          waits: false,
          note: 'Its own check says “not connected” for up to 15 minutes although the site works.',
        },
        { title: 'Purge its cache', by: 'us', when: 'after', waits: false, note: '' },
      ],
      note: 'Knows a domain only once it was added there; answers “No site here” before that.',
    },
    {
      ...none,
      id: 'harbourlight',
      name: REGISTRARS.harbourlight,
      role: 'registrar',
      form: REGISTRAR_FORMS.harbourlight,
      note: 'The client changes the nameservers there by hand.',
    },
    {
      ...none,
      id: 'cliffpath',
      name: REGISTRARS.cliffpath,
      role: 'registrar',
      form: REGISTRAR_FORMS.cliffpath,
      note: 'Writes to the owner before anything changes.',
    },
  ];
}

/** How a web host serves its sites. */
export interface SiteHabits {
  /** Browsers are not told to come by HTTPS alone. */
  readonly plain?: boolean;
  /** Domains whose redirect leads every page to the front page. */
  readonly toFront?: readonly string[];
}

export interface Lookout {
  readonly name: string;
  readonly address: string;
  readonly habit: string;
}

export interface ScenarioDomain {
  readonly zone: string;
  readonly client: string;
  readonly extra: readonly string[];
  /** The DNS host it stands at; Oldquay where it is absent. */
  readonly at?: string;
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
];

/** Registered, and never used: the parent denies it. */
export const UNUSED: readonly ScenarioDomain[] = [{ zone: 'samphire-kitchen.example.', client: 'Samphire kitchen', extra: [], unused: true }];

/** Nameservers of a DNS host by its id. */
export function nameserversAt(host: string): readonly { readonly name: string; readonly address: string }[] {
  return scenarioHosts('').find((one) => one.id === host)!.nameservers;
}

/** What stands around an RSA modulus of 1,024 bits in a SubjectPublicKeyInfo with the exponent 65,537 (RFC 8017 §A.1). */
const KEY_HEAD = '30819f300d06092a864886f70d010101050003818d0030818902818100';
const KEY_TAIL = '0203010001';

/** A key record as its mail host gives it, in two strings; nobody holds the other half of it. */
function signingKey(zone: string): string {
  const modulus = Buffer.concat([0, 1, 2, 3].map((part) => createHash('sha256').update(`${zone} ${part}`).digest()));
  modulus[0]! |= 0x80;
  modulus[127]! |= 1;
  const key = Buffer.concat([Buffer.from(KEY_HEAD, 'hex'), modulus, Buffer.from(KEY_TAIL, 'hex')]).toString('base64');
  return `"v=DKIM1; k=rsa; p=${key.slice(0, 108)}" "${key.slice(108)}"`;
}

/** A client's zone as it stands at its DNS host. */
export function clientZone({ zone, extra, at = 'oldquay', leftInZone = [] }: ScenarioDomain): string {
  const names = nameserversAt(at).map((server) => server.name);
  return `$ORIGIN ${zone}
$TTL 10800
@ 10800 SOA ${names[0]!} hostmaster.${at}.example. 2027020100 7200 900 1209600 1800
${[...names, ...leftInZone].map((name) => `@ 10800 NS ${name}`).join('\n')}
@ 3600 A 198.51.100.80
@ 3600 AAAA 2001:db8:5a17::80
www 3600 CNAME sites.saltmarsh.example.
@ MX 10 mx1.brinepost.example.
@ MX 20 mx2.brinepost.example.
@ TXT "v=spf1 include:spf.brinepost.example ip4:198.51.100.80 -all"
@ TXT "post-verification=7f3a21c9"
mail A 198.51.100.25
autoconfig CNAME autoconfig.brinepost.example.
tide._domainkey TXT ${signingKey(zone)}
_smtp._tls TXT "v=TLSRPTv1; rua=mailto:reports@brinepost.example"
${extra.join('\n')}
`;
}

/** Zones of the hosts themselves, served by Oldquay and Quillmere. */
export function infrastructureZones(): { readonly host: string; readonly zone: string; readonly text: string }[] {
  const soa = (zone: string, ns: string): string => `$ORIGIN ${zone}\n$TTL 3600\n@ SOA ${ns} hostmaster.${zone} 1 7200 900 1209600 900\n`;
  const oldNs = '@ NS ns1.oldquay.example.\n@ NS ns2.oldquay.example.\n';
  const newNs = '@ NS ns1.quillmere.example.\n@ NS ns2.quillmere.example.\n@ NS ns3.quillmere.example.\n';
  const closed = ['pebbledock', 'brackenfold', 'latchford', ...HAND_HOSTS.map((host) => host.id)].map((host) => {
    const servers = nameserversAt(host);
    const zone = `${host}.example.`;
    const lines = servers.flatMap(({ name, address }) => [`@ NS ${name}`, `${name} A ${address}`]);
    return { host, zone, text: `${soa(zone, servers[0]!.name)}${lines.join('\n')}\n` };
  });
  return [
    ...closed,
    { host: 'oldquay', zone: 'oldquay.example.', text: `${soa('oldquay.example.', 'ns1.oldquay.example.')}${oldNs}ns1 A 198.51.100.11\nns2 A 198.51.100.12\n` },
    {
      host: 'oldquay',
      zone: 'saltmarsh.example.',
      text: `${soa('saltmarsh.example.', 'ns1.oldquay.example.')}${oldNs}sites A 198.51.100.80\nsites AAAA 2001:db8:5a17::80\n`,
    },
    {
      host: 'oldquay',
      zone: 'brinepost.example.',
      text: `${soa('brinepost.example.', 'ns1.oldquay.example.')}${oldNs}mx1 A 198.51.100.25\nmx2 A 198.51.100.26\nshop A 198.51.100.27\nvoice A 198.51.100.28\nautoconfig A 198.51.100.25\nspf TXT "v=spf1 ip4:198.51.100.25 ip4:198.51.100.26 -all"\n`,
    },
    {
      host: 'quillmere',
      zone: 'quillmere.example.',
      text: `${soa('quillmere.example.', 'ns1.quillmere.example.')}${newNs}ns1 A 203.0.113.51\nns2 A 203.0.113.52\nns3 A 203.0.113.53\n`,
    },
    {
      host: 'quillmere',
      zone: 'thornwick.example.',
      text: `${soa('thornwick.example.', 'ns1.quillmere.example.')}${newNs}edge A 203.0.113.80\nedge AAAA 2001:db8:7403::80\n`,
    },
    {
      host: 'quillmere',
      zone: 'larkspur.example.',
      text: `${soa('larkspur.example.', 'ns1.quillmere.example.')}${newNs}sites A 203.0.113.90\nsites AAAA 2001:db8:1a2c::90\n*.sites A 203.0.113.90\n*.sites AAAA 2001:db8:1a2c::90\n*.certs TXT "not issued"\n`,
    },
  ];
}

export function parentZone(domains: readonly ScenarioDomain[]): string {
  const delegated = (zone: string, host: string, more: readonly string[] = []): string =>
    [...nameserversAt(host).map((server) => server.name), ...more].map((name) => `${zone} NS ${name}\n`).join('');
  const hosts = scenarioHosts('').filter((host) => host.role === 'dns');
  return `$ORIGIN example.
$TTL ${DELEGATION_TTL}
@ SOA ns1.nic.example. registry.nic.example. 1 1800 900 604800 900
${NIC.servers.map(({ name, address }) => `@ NS ${name}\n${name} A ${address}`).join('\n')}
${RDAP.name}. A ${RDAP.address}
${hosts.flatMap((host) => host.nameservers.map(({ name, address }) => `${name} A ${address}`)).join('\n')}
${infrastructureZones()
  .map(({ zone, host }) => delegated(zone, host))
  .join('')}${domains
    .filter((domain) => !domain.unused)
    .map(({ zone, at, leftAtParent }) => delegated(zone, at ?? 'oldquay', leftAtParent))
    .join('')}`;
}

export function rootZone(): string {
  return `$ORIGIN .
$TTL 86400
@ SOA ${ROOT.name} root.lab.test. 1 1800 900 604800 900
@ NS ${ROOT.name}
${ROOT.name} A ${ROOT.address}
${NIC.servers.map(({ name, address }) => `example. NS ${name}\n${name} A ${address}`).join('\n')}
`;
}
