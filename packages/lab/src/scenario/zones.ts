import { createHash } from 'node:crypto';
import { ScenarioDomain } from './domains';
import { HAND_HOSTS, STRANGE_SITES, nameserversAt, scenarioHosts } from './hosts';
import { DELEGATION_TTL, NIC, RDAP, ROOT } from './world';

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

const SALTMARSH = { addresses: ['198.51.100.80', '2001:db8:5a17::80'], alias: 'sites.saltmarsh.example.' } as const;

/** A client's zone as it stands at its DNS host. */
export function clientZone({ zone, extra, at = 'oldquay', site = SALTMARSH, leftInZone = [] }: ScenarioDomain): string {
  const names = nameserversAt(at).map((server) => server.name);
  return `$ORIGIN ${zone}
$TTL 10800
@ 10800 SOA ${names[0]!} hostmaster.${at}.example. 2027020100 7200 900 1209600 1800
${[...names, ...leftInZone].map((name) => `@ 10800 NS ${name}`).join('\n')}
@ 3600 A ${site.addresses[0]}
@ 3600 AAAA ${site.addresses[1]}
www 3600 CNAME ${site.alias}
@ MX 10 mx1.brinepost.example.
@ MX 20 mx2.brinepost.example.
@ TXT "v=spf1 include:spf.brinepost.example ip4:${site.addresses[0]} -all"
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
    const lines = [...servers.flatMap(({ name, address }) => [`@ NS ${name}`, `${name} A ${address}`]), ...strangeSite(host)];
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

/** The name by which a company's website is reached, in its own zone. */
function strangeSite(host: string): string[] {
  const site = Object.entries(STRANGE_SITES).find(([id]) => id === host)?.[1];
  return site ? [`${site.alias} A ${site.addresses[0]}`, `${site.alias} AAAA ${site.addresses[1]}`] : [];
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
