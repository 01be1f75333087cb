/** What a small client's zone is made of; lines below the zone, `@` the zone itself, KEY a key of signatures that is whole. */
const PARTS: Readonly<Record<string, readonly string[]>> = {
  v4: ['@ A 192.0.2.80'],
  v6: ['@ AAAA 2001:db8::80'],
  'www-a': ['www A 192.0.2.80'],
  'www-both': ['www A 192.0.2.80', 'www AAAA 2001:db8::80'],
  'www-alias': ['www CNAME sites.old.test.'],
  'www-apex': ['www CNAME @'],
  'mail-post': ['@ MX 10 mx1.post.test.', '@ MX 20 mx2.post.test.', 'autodiscover CNAME auto.post.test.', '_submission._tcp SRV 0 1 587 smtp.post.test.'],
  'mail-own': ['@ MX 10 mail', 'mail A 198.51.100.25', 'imap CNAME mail', '_imaps._tcp SRV 0 1 993 mail'],
  'mail-none': ['@ MX 0 .', '@ TXT "v=spf1 -all"'],
  'spf-post': ['@ TXT "v=spf1 include:spf.post.test -all"'],
  'spf-own': ['@ TXT "v=spf1 mx ip4:198.51.100.25 ~all"'],
  'spf-long': ['@ TXT "v=spf1 include:spf.post.test include:spf.letters.test " "include:spf.shop.test ip4:198.51.100.0/28 ip6:2001:db8:25::/48 -all"'],
  dkim: ['tide._domainkey TXT KEY'],
  'dkim-alias': ['s1._domainkey CNAME s1.keys.post.test.', 's2._domainkey CNAME s2.keys.post.test.'],
  dmarc: ['_dmarc TXT "v=DMARC1; p=quarantine; rua=mailto:reports@post.test; adkim=r; pct=100"'],
  'dmarc-alias': ['_dmarc CNAME dmarc.reports.test.'],
  verify: ['@ TXT "site-verification=7f3a21c9e0"', '@ TXT "post-domain-proof=0aa1b2"'],
  'verify-name': ['7f3a21.verify CNAME proofs.letters.test.'],
  caa: ['@ CAA 0 issue "certs.test"', '@ CAA 0 iodef "mailto:it@post.test"'],
  wild: ['*.boats A 198.51.100.7'],
  'wild-all': ['* A 198.51.100.9'],
  sub: ['office NS ns1.else.test.', 'office NS ns2.else.test.'],
  'sub-glue': ['lab NS ns1.lab', 'ns1.lab A 198.51.100.53'],
  'sub-ds': ['safe NS ns1.else.test.', `safe DS 4711 13 2 ${'a1'.repeat(32)}`],
  voip: ['_sip._udp SRV 10 5 5060 pbx', 'pbx A 198.51.100.60', '@ NAPTR 10 100 "s" "SIP+D2U" "" _sip._udp'],
  shop: ['shop CNAME shops.market.test.', '_acme-challenge.shop CNAME proof.market.test.'],
  files: ['files A 198.51.100.30', 'vpn A 198.51.100.31'],
  blog: ['blog CNAME a.sites.old.test.'],
  'mta-sts': ['_mta-sts TXT "v=STSv1; id=20260101"', 'mta-sts CNAME policy.post.test.', '_smtp._tls TXT "v=TLSRPTv1; rua=mailto:tls@post.test"'],
  https: ['files HTTPS 1 . alpn="h2,h3"'],
  acme: ['_acme-challenge CNAME x1.proofs.certs.test.'],
  tlsa: [`_25._tcp.mail TLSA 3 1 1 ${'b2'.repeat(32)}`],
  calendar: ['_caldavs._tcp SRV 0 1 443 dav.post.test.', '_caldavs._tcp TXT "path=/dav"', 'autoconfig CNAME conf.post.test.'],
  odd: ['host\\.name TXT "an odd label"', '_x TYPE65400 \\# 3 0102ff', '@ LOC 53 30 0.000 N 8 10 0.000 E 3.00m 1m 10000m 10m'],
  bimi: ['default._bimi TXT "v=BIMI1; l=https://files.post.test/mark.svg"'],
};

/** Forty zones of clients of many kinds: their names, and what they are made of. */
const ZONES = `
lantern-museum.test: v4 v6 www-alias mail-post spf-post dkim dmarc verify
canoe-landing.test: v4 www-a mail-own spf-own dkim dmarc wild
tidal-choir.test: v4 www-apex mail-post spf-post verify caa
xn--kserei-erle-l8a.test: v4 v6 www-both mail-post spf-post dkim-alias dmarc
gull-wireless.test: v4 www-alias mail-own spf-own voip files
seed-archive.test: v4 v6 www-apex mail-post spf-long dkim dmarc caa acme
allotments-north.test: v4 www-a mail-none
regatta-office.test: v4 v6 www-alias mail-post spf-post sub blog
kelp-forge.test: v4 www-a mail-own spf-own tlsa dkim
heron-bindery.test: v4 www-apex mail-post spf-long shop verify verify-name
marsh-ferries.test: v4 v6 www-both mail-own spf-own mta-sts sub-glue
cockle-bakery.test: v4 www-alias mail-post spf-post calendar
drift-pottery.test: v4 www-a
sail-loft-nine.test: v4 www-alias mail-post spf-post dkim dkim-alias dmarc verify
pilot-station.test: v4 v6 www-both mail-own spf-own voip wild
salt-works.test: v4 www-a mail-post spf-post shop files https
beacon-trust.test: v4 v6 www-alias mail-post spf-long mta-sts dmarc-alias dkim
net-menders.test: v4 www-apex mail-none odd
harbour-clinic.test: v4 www-alias mail-own spf-own dkim dmarc caa sub-ds
dune-theatre.test: v4 v6 www-a mail-post spf-post blog verify bimi
oyster-school.test: v4 www-alias mail-post spf-post calendar sub
wharf-print.test: v4 www-a mail-own spf-own files wild-all
estuary-maps.test: v4 v6 www-apex mail-post spf-post https files acme
ropewalk-gym.test: v4 www-both mail-post spf-post dkim
quay-legal.test: v4 www-alias mail-post spf-long dkim-alias dmarc mta-sts caa
barnacle-games.test: v4 v6 www-a mail-post spf-post shop blog wild
tern-watch.test: v4 www-apex mail-none wild-all
boatyard-cafe.test: v4 www-alias mail-own spf-own calendar
samphire-farm.test: v4 www-a mail-post spf-post verify-name dmarc
ebb-records.test: v4 v6 www-both mail-post spf-post dkim sub-glue odd
anchor-dental.test: v4 www-alias mail-post spf-post dkim-alias dmarc verify
fathom-survey.test: v4 v6 www-apex mail-own spf-own voip sub sub-ds
shingle-rentals.test: v4 www-a mail-post spf-post shop
moorings-two.test: v4 www-alias mail-own spf-own dkim dmarc tlsa mta-sts
flotsam-prints.test: v4 www-both mail-post spf-long blog files
lugger-tours.test: v4 v6 www-alias mail-post spf-post calendar voip
periwinkle.test: v4 www-a mail-none caa
spindrift-it.test: v4 v6 www-apex mail-own spf-own sub-glue files https dkim dmarc
coastguard-club.test: v4 www-alias mail-post spf-post verify wild
tideline-news.test: v4 v6 www-a mail-post spf-post dkim dmarc caa acme blog
`;

export interface LifelikeZone {
  readonly name: string;
  readonly parts: ReadonlySet<string>;
  /** Lines of a zone file, without TTL and class. */
  readonly lines: readonly string[];
}

/** `key`: a key of signatures, as data of a text record. */
export function lifelikeZones(key: string): LifelikeZone[] {
  return ZONES.trim()
    .split('\n')
    .map((line): LifelikeZone => {
      const [name, made] = line.split(': ') as [string, string];
      const parts = made.split(' ');
      const own = ['@ SOA ns1.dns.old.test. it.old.test. 1 7200 900 1209600 300', '@ NS ns1.dns.old.test.', '@ NS ns2.dns.old.test.'];
      return { name, parts: new Set(parts), lines: [...own, ...parts.flatMap((part) => PARTS[part]!)].map((one) => one.replace('KEY', key)) };
    });
}
