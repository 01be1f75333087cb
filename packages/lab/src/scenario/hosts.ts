import { createHash } from 'node:crypto';
import { DnsHabits, EntryStyle, HostTask, Name, RegistrarForm, Requirement, TsigKey } from '@wanderon/core';
import { REGISTRARS, REGISTRAR_FORMS } from '../registrars';

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
  readonly tasks?: readonly Omit<HostTask, 'id' | 'redirects'>[];
  /** False: a zone is there only once the domain is delegated to it. */
  readonly holdsEarly?: boolean;
  /** Of a registrar: how its page wants nameservers, as the agency has noted it. */
  readonly form?: RegistrarForm;
  readonly key: { readonly name: string; readonly algorithm: 'hmac-sha256'; readonly secret: string } | undefined;
  readonly note: string;
  readonly sites?: SiteHabits;
  /** The agency has never had to do with it: it is in the world, and not among its hosts. */
  readonly isStrange?: boolean;
}

/** DNS hosts into whose panels everything is typed, with what the agency has noted of their habits. */
export const HAND_HOSTS: readonly (Pick<ScenarioHost, 'id' | 'name' | 'note' | 'tasks' | 'habits' | 'isStrange'> & { readonly entry: EntryStyle })[] = [
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
  {
    ...{ id: 'hollowell', name: 'Hollowell', note: '', isStrange: true },
    entry: { names: 'relative', apex: '@', targetDot: 'either', text: 'bare', longText: 'whole', priority: 'own field', ttls: [300, 3600] },
  },
  {
    ...{ id: 'fernlight', name: 'Fernlight', note: '', isStrange: true },
    entry: { names: 'relative', apex: '@', targetDot: 'required', text: 'bare', longText: 'whole', priority: 'own field', ttls: [] },
  },
];

/** Where the websites of two companies are that the agency has never had to do with. */
export const STRANGE_SITES = {
  hollowell: { addresses: ['198.51.100.130', '2001:db8:4011::130'], alias: 'web.hollowell.example.' },
  fernlight: { addresses: ['203.0.113.110', '2001:db8:fe11::110'], alias: 'sites.fernlight.example.' },
} as const;

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
      note: 'Asks for an ownership token below the domain.',
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
    ...Object.entries(STRANGE_SITES).map(([id, { addresses, alias }]): ScenarioHost => ({
      ...none,
      ...{ id: `${id}-sites`, name: id === 'hollowell' ? 'Hollowell' : 'Fernlight', role: 'web', addresses, aliasTarget: alias, note: '', isStrange: true },
    })),
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

/** The same whatever the seed is. */
const SERVERS = new Map(scenarioHosts('').map(({ id, nameservers }) => [id, nameservers]));

/** Nameservers of a DNS host by its id. */
export function nameserversAt(host: string): readonly { readonly name: string; readonly address: string }[] {
  return SERVERS.get(host)!;
}
