/** RFC 6895 §2.2 */
export const OPCODE = { query: 0, iquery: 1, status: 2, notify: 4, update: 5, dso: 6 } as const;

/** RFC 6895 §2.3, the codes of EDNS and TSIG included; 16 is BADSIG in a TSIG record. */
export const RCODE = {
  NOERROR: 0,
  FORMERR: 1,
  SERVFAIL: 2,
  NXDOMAIN: 3,
  NOTIMP: 4,
  REFUSED: 5,
  YXDOMAIN: 6,
  YXRRSET: 7,
  NXRRSET: 8,
  NOTAUTH: 9,
  NOTZONE: 10,
  DSOTYPENI: 11,
  BADVERS: 16,
  BADKEY: 17,
  BADTIME: 18,
  BADMODE: 19,
  BADNAME: 20,
  BADALG: 21,
  BADTRUNC: 22,
  BADCOOKIE: 23,
} as const;

/** BADSIG of RFC 8945 §3 has the number of BADVERS; which is meant depends on where it stands. */
export const BADSIG = 16;

const RCODE_NAMES = new Map<number, string>(Object.entries(RCODE).map(([name, code]) => [code, name]));

export function rcodeName(code: number): string {
  return RCODE_NAMES.get(code) ?? `RCODE${code}`;
}
