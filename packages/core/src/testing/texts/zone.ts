import { Random } from './random';

/** One record of a made-up zone, as people know it: its name below the domain, and its value with a dot behind whole names. */
export interface TextRecord {
  readonly owner: string;
  readonly type: string;
  readonly ttl: number;
  readonly data: string;
}

const FIRST = 'lantern canoe tidal gull seed kelp heron marsh cockle drift sail pilot salt beacon harbour regatta allotment radio dairy choir'.split(' ');
const SECOND = 'museum yard office works forge bindery loft trust club press kitchen wharf archive school gallery market'.split(' ');
const HOSTS = 'oldquay saltmarsh driftwood millrace hearth thornwick quillmere postern tarn brinepost'.split(' ');
const LABELS = 'shop blog intranet files vpn cloud api stage app news booking wiki kiosk tickets forum status images cdn portal remote'.split(' ');
const TTLS = [300, 600, 1800, 3600, 7200, 14_400, 86_400];

export const address = (random: Random): string => `${random.pick(['192.0.2', '198.51.100', '203.0.113'])}.${1 + random.below(254)}`;
const address6 = (random: Random): string => `2001:db8:${random.hex(2)}${random.below(9) + 1}::${random.below(900) + 1}`;
export const hostName = (random: Random): string => `${random.pick(['edge', 'sites', 'web-7', 'cluster3', 'lb'])}.${random.pick(HOSTS)}.example.`;

/** A domain of a client: of one word, of two, or with a hyphen. */
export function domain(random: Random): string {
  return `${random.pick(FIRST)}${random.pick(['', '-'])}${random.pick(SECOND)}.${random.pick(['example', 'test'])}`;
}

/** What a small client's zone is made of, without what belongs to its DNS host. */
export function zoneRecords(random: Random): TextRecord[] {
  const records: TextRecord[] = [];
  const ttl = random.pick(TTLS);
  const add = (owner: string, type: string, data: string): void => {
    records.push({ owner, type, ttl: random.chance(0.8) ? ttl : random.pick(TTLS), data });
  };
  const web = address(random);
  add('@', 'A', web);
  if (random.chance(0.4)) add('@', 'AAAA', address6(random));
  if (random.chance(0.5)) add('www', 'A', web);
  else add('www', 'CNAME', hostName(random));
  const post = random.pick(HOSTS);
  if (random.chance(0.7)) {
    add('@', 'MX', `10 mx1.${post}.example.`);
    if (random.chance(0.6)) add('@', 'MX', `20 mx2.${post}.example.`);
    add('@', 'TXT', `"v=spf1 include:spf.${post}.example ${random.pick(['-all', '~all', 'mx ~all'])}"`);
    if (random.chance(0.5)) add('autodiscover', 'CNAME', `auto.${post}.example.`);
  } else {
    add('mail', 'A', address(random));
    add('@', 'TXT', `"v=spf1 ip4:${address(random)} -all"`);
  }
  if (random.chance(0.5)) add('_dmarc', 'TXT', `"v=DMARC1; p=${random.pick(['none', 'reject', 'quarantine'])}; rua=mailto:reports@${post}.example"`);
  if (random.chance(0.4)) add(`${random.pick(['tide', 's1', 'mail2026'])}._domainkey`, 'TXT', `"v=DKIM1; k=rsa; p=MIIB${random.hex(60)}"`);
  if (random.chance(0.4)) add('@', 'TXT', `"${random.pick(HOSTS)}-site-verification=${random.hex(24)}"`);
  if (random.chance(0.3)) add('_sip._tcp', 'SRV', `10 60 5060 pbx.${post}.example.`);
  if (random.chance(0.3)) add('@', 'CAA', `0 issue "certs.${random.pick(HOSTS)}.example"`);
  for (const label of random.some(LABELS, 0, 6)) {
    if (random.chance(0.5)) add(label, 'A', address(random));
    else add(label, 'CNAME', hostName(random));
  }
  if (random.chance(0.15)) add('*', 'A', address(random));
  return records;
}
