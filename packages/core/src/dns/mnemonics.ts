/** Words that stand for numbers in record data. A table is read in any letter case. */
export type Mnemonics = Readonly<Record<string, number>>;

/** Security algorithms: RFC 4034 appendix A.1 and the IANA registry after it. */
export const ALGORITHMS: Mnemonics = {
  RSAMD5: 1,
  DH: 2,
  DSA: 3,
  RSASHA1: 5,
  NSEC3DSA: 6,
  NSEC3RSASHA1: 7,
  RSASHA256: 8,
  RSASHA512: 10,
  ECCGOST: 12,
  ECDSAP256SHA256: 13,
  ECDSA256: 13,
  ECDSAP384SHA384: 14,
  ECDSA384: 14,
  ED25519: 15,
  ED448: 16,
  INDIRECT: 252,
  PRIVATEDNS: 253,
  PRIVATEOID: 254,
};

/** Digest types of DS records: RFC 4034, RFC 4509, RFC 5933, RFC 6605. */
export const DIGESTS: Mnemonics = { 'SHA-1': 1, SHA1: 1, 'SHA-256': 2, SHA256: 2, GOST: 3, 'SHA-384': 4, SHA384: 4 };

/** RFC 5155 §11 */
export const HASHES: Mnemonics = { 'SHA-1': 1 };

/** RFC 2535 §3.1.3 */
export const PROTOCOLS: Mnemonics = { NONE: 0, TLS: 1, EMAIL: 2, DNSSEC: 3, IPSEC: 4, ALL: 255 };

/** Flags of keys, joined by `|` (RFC 2535 §3.1.2), and the secure entry point of RFC 4034 §2.1.1. */
export const KEY_FLAGS: Mnemonics = {
  NOCONF: 0x4000,
  NOAUTH: 0x8000,
  NOKEY: 0xc000,
  FLAG2: 0x2000,
  EXTEND: 0x1000,
  FLAG4: 0x0800,
  FLAG5: 0x0400,
  USER: 0x0000,
  ZONE: 0x0100,
  HOST: 0x0200,
  NTYP3: 0x0300,
  FLAG8: 0x0080,
  FLAG9: 0x0040,
  FLAG10: 0x0020,
  FLAG11: 0x0010,
  ...Object.fromEntries(Array.from({ length: 16 }, (_, i) => [`SIG${i}`, i])),
  KSK: 0x0001,
};

/** RFC 4398 §2.1 */
export const CERTIFICATE_TYPES: Mnemonics = { PKIX: 1, SPKI: 2, PGP: 3, IPKIX: 4, ISPKI: 5, IPGP: 6, ACPKIX: 7, IACPKIX: 8, URI: 253, OID: 254 };

/** RFC 9859 §2.1 */
export const NOTIFY_SCHEMES: Mnemonics = { NOTIFY: 1 };

/** Internet protocols that WKS records name in practice (RFC 1035 §3.4.2). */
export const IP_PROTOCOLS: Mnemonics = { ICMP: 1, TCP: 6, UDP: 17 };

/** Services of a WKS record by the names of the IANA registry that hosts of its time had. */
export const SERVICES: Mnemonics = {
  ECHO: 7,
  DISCARD: 9,
  SYSTAT: 11,
  DAYTIME: 13,
  NETSTAT: 15,
  QOTD: 17,
  CHARGEN: 19,
  'FTP-DATA': 20,
  FTP: 21,
  SSH: 22,
  TELNET: 23,
  SMTP: 25,
  TIME: 37,
  WHOIS: 43,
  NICNAME: 43,
  DOMAIN: 53,
  BOOTPS: 67,
  BOOTPC: 68,
  TFTP: 69,
  GOPHER: 70,
  FINGER: 79,
  HTTP: 80,
  KERBEROS: 88,
  POP3: 110,
  SUNRPC: 111,
  NNTP: 119,
  NTP: 123,
  IMAP2: 143,
  SNMP: 161,
  HTTPS: 443,
};

/** The number of a word in a table, in any letter case; undefined if it is not there. */
export function numberOf(table: Mnemonics, word: string): number | undefined {
  const upper = word.toUpperCase();
  return Object.hasOwn(table, upper) ? table[upper] : undefined;
}
