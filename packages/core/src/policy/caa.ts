/** What the CAA records of one name let issuers do (RFC 8659 §4); issuers in lower case, `''` for nobody. */
export interface CaaPolicy {
  /** Issuers of any certificate; undefined where no such property stands there, which lets everybody. */
  readonly issue: readonly string[] | undefined;
  /** Of certificates for wildcards, in the place of `issue`. */
  readonly issueWild: readonly string[] | undefined;
  /** Properties that an issuer has to know and that are not of RFC 8659: nobody may go on without knowing them. */
  readonly critical: readonly string[];
}

const KNOWN: ReadonlySet<string> = new Set(['issue', 'issuewild', 'iodef']);
const CRITICAL = 128;

/** Reads the values of a CAA set in presentation form; never throws. A value that is no issuer's name lets nobody (RFC 8659 §4.2). */
export function readCaa(data: readonly string[]): CaaPolicy {
  const records = data.flatMap((text) => {
    const found = /^(\d+) (\S+) "?(.*?)"?$/s.exec(text);
    return found ? [{ flags: Number(found[1]), tag: found[2]!.toLowerCase(), value: found[3]! }] : [];
  });
  const issuers = (tag: string): readonly string[] | undefined => {
    const own = records.filter((one) => one.tag === tag);
    return own.length === 0 ? undefined : own.map(({ value }) => issuerOf(value));
  };
  return {
    issue: issuers('issue'),
    issueWild: issuers('issuewild'),
    critical: records.filter(({ flags, tag }) => (flags & CRITICAL) !== 0 && !KNOWN.has(tag)).map(({ tag }) => tag),
  };
}

/** `certs.example; account=7` → `certs.example`; `;` → `` */
function issuerOf(value: string): string {
  const name = value.split(';')[0]!.trim().toLowerCase();
  return /^[a-z0-9]([a-z0-9-]*[a-z0-9])?(\.[a-z0-9]([a-z0-9-]*[a-z0-9])?)*$/.test(name) ? name : '';
}

/** Whether one of `issuers` may make a certificate; for a wildcard, where `wild`. */
export function mayIssue({ issue, issueWild, critical }: CaaPolicy, issuers: readonly string[], wild: boolean): boolean {
  if (critical.length > 0) return false;
  const list = wild ? (issueWild ?? issue) : issue;
  return list === undefined || issuers.some((one) => list.includes(one.toLowerCase()));
}
