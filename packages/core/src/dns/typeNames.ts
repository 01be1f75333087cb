/** Type numbers of the IANA registry that have a mnemonic in zone files. */
export const TYPE_CODES = {
  A: 1,
  NS: 2,
  CNAME: 5,
  SOA: 6,
  MB: 7,
  MG: 8,
  MR: 9,
  PTR: 12,
  HINFO: 13,
  MINFO: 14,
  MX: 15,
  TXT: 16,
  RP: 17,
  AFSDB: 18,
  X25: 19,
  ISDN: 20,
  RT: 21,
  NSAP: 22,
  'NSAP-PTR': 23,
  SIG: 24,
  KEY: 25,
  PX: 26,
  GPOS: 27,
  AAAA: 28,
  LOC: 29,
  SRV: 33,
  NAPTR: 35,
  KX: 36,
  CERT: 37,
  DNAME: 39,
  OPT: 41,
  APL: 42,
  DS: 43,
  SSHFP: 44,
  IPSECKEY: 45,
  RRSIG: 46,
  NSEC: 47,
  DNSKEY: 48,
  DHCID: 49,
  NSEC3: 50,
  NSEC3PARAM: 51,
  TLSA: 52,
  SMIMEA: 53,
  HIP: 55,
  NINFO: 56,
  RKEY: 57,
  TALINK: 58,
  CDS: 59,
  CDNSKEY: 60,
  OPENPGPKEY: 61,
  CSYNC: 62,
  ZONEMD: 63,
  SVCB: 64,
  HTTPS: 65,
  SPF: 99,
  NID: 104,
  L32: 105,
  L64: 106,
  LP: 107,
  EUI48: 108,
  EUI64: 109,
  TKEY: 249,
  TSIG: 250,
  IXFR: 251,
  AXFR: 252,
  ANY: 255,
  URI: 256,
  CAA: 257,
  AVC: 258,
  AMTRELAY: 260,
  TA: 32768,
  DLV: 32769,
} as const;

const NAMES = new Map<number, string>(Object.entries(TYPE_CODES).map(([mnemonic, code]) => [code, mnemonic]));

/** The number of a type given by mnemonic in any case, or as TYPE123 (RFC 3597 §5). */
export function typeCode(text: string): number | undefined {
  const upper = text.toUpperCase();
  if (Object.hasOwn(TYPE_CODES, upper)) return TYPE_CODES[upper as keyof typeof TYPE_CODES];
  const generic = /^TYPE(\d{1,5})$/.exec(upper);
  return generic && Number(generic[1]) <= 0xffff ? Number(generic[1]) : undefined;
}

export function typeMnemonic(code: number): string {
  return NAMES.get(code) ?? `TYPE${code}`;
}
