import { isIpv4 } from './address';
import { asciiText } from './bytes';
import { fromBase32Hex } from './base32';
import { isHostName, isMailbox } from './hostNames';
import { childKeyProblems } from './childSync';
import { Name } from './name';
import { namesIn } from './rdata';
import { ResourceRecord } from './record';
import { TYPE_CODES, typeMnemonic } from './typeNames';
import { ZoneContents, ZoneNode } from './zoneContents';
import { Place, ZoneFile } from './zoneFile';

/** A remark on a zone. `error`: a server would not load it. */
export interface ZoneFinding extends Place {
  readonly severity: 'error' | 'warning';
  readonly code: string;
  readonly text: string;
}

export interface CheckedZone {
  /** True where a server would load the zone. */
  readonly loads: boolean;
  readonly findings: readonly ZoneFinding[];
  /** What a server would serve: out-of-zone data and repetitions left out, one TTL a set, canonical order. */
  readonly records: readonly ResourceRecord[];
}

/** Types whose records may keep a zone from loading by themselves. */
const CAN_FAIL: ReadonlySet<number> = new Set([TYPE_CODES.SOA, TYPE_CODES.NS, TYPE_CODES.DS, TYPE_CODES.NSEC3]);

/** At most these many findings are kept; what is said of the ten thousandth bad line helps nobody. */
const MOST_FINDINGS = 10_000;

const SINGLETONS: ReadonlySet<number> = new Set([TYPE_CODES.SOA, TYPE_CODES.CNAME, TYPE_CODES.DNAME]);
/** May stand beside an alias (RFC 4034 §2.5, §3, §4; RFC 3007 §3 for KEY). */
const BESIDE_ALIAS: ReadonlySet<number> = new Set([TYPE_CODES.CNAME, TYPE_CODES.RRSIG, TYPE_CODES.NSEC, TYPE_CODES.KEY, TYPE_CODES.SIG]);

/**
 * Holds a zone against the rules by which name servers load it, with the severity that bind 9.18 gives each. With
 * `errorsOnly` what is only worth a warning is not looked for.
 */
export function checkZone(file: ZoneFile, origin: Name, options: { readonly errorsOnly?: boolean } = {}): CheckedZone {
  const zone = new ZoneContents(file, origin);
  const rules = new Rules(file, zone, options.errorsOnly ?? false);
  rules.check();
  const findings = rules.findings.sort((a, b) => a.line - b.line || a.column - b.column);
  return { loads: rules.errors === 0, findings, records: zone.records };
}

class Rules {
  readonly findings: ZoneFinding[] = [];
  errors = 0;

  constructor(
    private readonly file: ZoneFile,
    private readonly zone: ZoneContents,
    private readonly errorsOnly: boolean,
  ) {}

  check(): void {
    for (const { message, severity, code, ...place } of this.file.findings) this.add(place, severity, code, message);
    for (const index of this.zone.outside)
      this.say(index, 'warning', 'out-of-zone', `${this.file.records[index]!.owner.toString()} is outside the zone and is left out`);
    for (const { index, kind, ttl } of this.zone.repetitions) {
      const { owner, type } = this.file.records[index]!;
      const what = `${owner.toString()} ${typeMnemonic(type)}`;
      this.say(
        index,
        'warning',
        kind,
        kind === 'repeated' ? `${what} stands here twice with the same data` : `the TTLs of ${what} differ; the first, ${ttl}, counts`,
      );
    }
    this.checkApex();
    for (const node of this.zone.nodes) {
      this.checkNode(node);
      for (let i = node.start; i < node.end; i++) this.checkRecord(node, this.zone.records[i]!, this.zone.indexes[i]!);
    }
  }

  private add(place: Place, severity: ZoneFinding['severity'], code: string, text: string): void {
    if (severity === 'error') this.errors += 1;
    if (this.findings.length < MOST_FINDINGS) this.findings.push({ ...place, severity, code, text });
  }

  private say(index: number, severity: ZoneFinding['severity'], code: string, text: string): void {
    this.add(this.file.places.at(index), severity, code, text);
  }

  /** RFC 1035 §5.2: one SOA at the apex, and NS records there (RFC 2181 §6.1). */
  private checkApex(): void {
    const { zone } = this;
    const apex = zone.node(zone.origin);
    const firstIndex = zone.indexes[apex?.start ?? 0] ?? 0;
    const place = this.file.places.at(firstIndex);
    if (!zone.has(zone.origin, TYPE_CODES.SOA)) this.add(place, 'error', 'no-soa', 'the zone has no SOA record at the domain itself');
    if (!zone.has(zone.origin, TYPE_CODES.NS)) this.add(place, 'error', 'no-ns', 'the zone has no NS records at the domain itself');
    if (!apex) return;
    const of = (type: number): Uint8Array[] => zone.at(zone.origin, type).map((record) => record.data);
    const where = (type: number): number => {
      for (let i = apex.start; i < apex.end; i++) if (zone.records[i]!.type === type) return zone.indexes[i]!;
      return firstIndex;
    };
    for (const problem of childKeyProblems(of(TYPE_CODES.DNSKEY), of(TYPE_CODES.CDS), of(TYPE_CODES.CDNSKEY)))
      this.say(where(TYPE_CODES[problem.type]), problem.severity, 'child-keys', problem.text);
    const params = of(TYPE_CODES.NSEC3PARAM);
    if (params.length > 0 && params.every((data) => data[0] !== 1))
      this.say(where(TYPE_CODES.NSEC3PARAM), 'error', 'nsec3-hash', 'no NSEC3PARAM record has a hash algorithm that is known');
  }

  /** RFC 1034 §3.6.2, RFC 2181 §10.1, RFC 6672 §2.4: what cannot stand together. */
  private checkNode({ owner, start, end }: ZoneNode): void {
    const { records, indexes } = this.zone;
    if (end - start > 1) {
      let alias: number | undefined;
      let beside: number | undefined;
      for (let i = end - 1; i >= start; i--) {
        if (records[i]!.type === TYPE_CODES.CNAME) alias = indexes[i];
        else if (!BESIDE_ALIAS.has(records[i]!.type)) beside = indexes[i];
      }
      if (alias !== undefined && beside !== undefined)
        this.say(Math.max(alias, beside), 'error', 'alias-beside-data', `${owner.toString()} has a CNAME and other data`);
      for (let i = start + 1; i < end; i++) {
        const { type } = records[i]!;
        if (SINGLETONS.has(type) && type === records[i - 1]!.type && (i - 2 < start || type !== records[i - 2]!.type))
          this.say(Math.max(indexes[i]!, indexes[i - 1]!), 'error', 'more-than-one', `${owner.toString()} has more than one ${typeMnemonic(type)}`);
      }
    }
    if (this.errorsOnly) return;
    const hidden = this.zone.hiddenBy(owner);
    if (hidden)
      for (let i = start; i < end; i++) {
        const { type } = records[i]!;
        // Addresses under a delegation are glue.
        if (hidden.type === TYPE_CODES.NS && (type === TYPE_CODES.A || type === TYPE_CODES.AAAA)) continue;
        this.say(indexes[i]!, 'warning', 'hidden', `${owner.toString()} is hidden by the ${typeMnemonic(hidden.type)} at ${hidden.owner.toString()}`);
        break;
      }
    if (owner.holdsTwice(this.zone.origin))
      this.say(indexes[start]!, 'warning', 'doubled-zone', `${owner.toString()} holds the name of the zone twice: was a final dot left out?`);
  }

  private checkRecord(node: ZoneNode, record: ResourceRecord, index: number): void {
    const { owner } = node;
    const { type, data } = record;
    if (this.errorsOnly && !CAN_FAIL.has(type)) return;
    switch (type) {
      case TYPE_CODES.A:
      case TYPE_CODES.AAAA:
        if (!isHostName(owner, true)) this.say(index, 'warning', 'bad-host-name', `${owner.toString()} has an address, but cannot be the name of a host`);
        return;
      case TYPE_CODES.SOA: {
        if (!owner.equals(this.zone.origin))
          return this.say(index, 'error', 'soa-below-apex', `an SOA record stands at ${owner.toString()}, not at the domain itself`);
        const [primary, mailbox] = namesIn(type, data);
        if (primary && !isHostName(primary, false)) this.say(index, 'warning', 'bad-host-name', `${primary.toString()} cannot be the name of a host`);
        if (mailbox && !isMailbox(mailbox)) this.say(index, 'warning', 'bad-mailbox', `${mailbox.toString()} cannot stand for a mailbox`);
        return;
      }
      case TYPE_CODES.NS:
        if (owner.isWildcard) this.say(index, 'error', 'ns-wildcard', 'a wildcard cannot be delegated');
        if (this.errorsOnly && !owner.equals(this.zone.origin)) return;
        return this.checkTarget(node, record, index);
      case TYPE_CODES.MX:
        if (!isHostName(owner, true)) this.say(index, 'warning', 'bad-host-name', `${owner.toString()} has mail, but cannot be the name of a host`);
        return this.checkTarget(node, record, index);
      case TYPE_CODES.SRV:
        return this.checkTarget(node, record, index);
      case TYPE_CODES.DS:
        if (owner.equals(this.zone.origin)) this.say(index, 'error', 'ds-at-apex', 'a DS record of the domain itself belongs to the parent zone');
        else if (!this.zone.has(owner, TYPE_CODES.NS)) this.say(index, 'warning', 'ds-without-ns', `${owner.toString()} has a DS record, but is not delegated`);
        return this.checkAlgorithm(record, index, data[2]!, data[3] === 1 ? 'SHA-1' : undefined);
      case TYPE_CODES.CDS:
        return this.checkAlgorithm(record, index, data[2]!, data[3] === 1 ? 'SHA-1' : undefined);
      case TYPE_CODES.DNSKEY:
      case TYPE_CODES.CDNSKEY:
        return this.checkAlgorithm(record, index, data[3]!, undefined);
      case TYPE_CODES.NSEC3:
        if (fromBase32Hex(asciiText(owner.wire.subarray(1, 1 + owner.wire[0]!))) === undefined)
          this.say(index, 'error', 'nsec3-owner', `${owner.toString()} does not begin with a hash in base32, as the owner of an NSEC3 record does`);
        return;
      case TYPE_CODES.URI:
        if (data.length <= 4) this.say(index, 'warning', 'empty-target', `${owner.toString()} has a URI record without a target (RFC 7553 §4.4)`);
        return;
      case TYPE_CODES.SPF:
      case TYPE_CODES.A6:
      case TYPE_CODES.NXT:
      case TYPE_CODES.SIG:
        return this.say(index, 'warning', 'obsolete-type', `${typeMnemonic(type)} is obsolete; ${REPLACED[type]!} took its place`);
    }
  }

  /** RFC 8624 §3.1, §3.3: what signers must no longer use. */
  private checkAlgorithm(record: ResourceRecord, index: number, algorithm: number, digest: string | undefined): void {
    const old = OBSOLETE_ALGORITHMS[algorithm] ?? digest;
    if (old !== undefined)
      this.say(index, 'warning', 'obsolete-algorithm', `${record.owner.toString()} ${typeMnemonic(record.type)} uses ${old}, which validators no longer trust`);
  }

  /** Targets in the zone that lead nowhere: fatal for the zone's own name servers, a warning elsewhere (RFC 1912 §2.4, §2.8). */
  private checkTarget(node: ZoneNode, { type, data }: ResourceRecord, index: number): void {
    const name = namesIn(type, data)[0];
    // `MX 0 .` and `SRV … .` say that there is no service (RFC 7505, RFC 2782).
    if (!name || name.isRoot) return;
    const mnemonic = typeMnemonic(type);
    if (!isHostName(name, false)) this.say(index, 'warning', 'bad-host-name', `the ${mnemonic} target ${name.toString()} cannot be the name of a host`);
    if (!name.isAtOrBelow(this.zone.origin)) {
      if (looksLikeAddress(name) && isIpv4(name.toString().slice(0, -1)))
        this.say(index, 'warning', 'target-is-address', `the ${mnemonic} target ${name.toString()} looks like an address`);
      return;
    }
    if (looksLikeAddress(name) && isIpv4(name.relativeTo(this.zone.origin)))
      this.say(index, 'warning', 'target-is-address', `the ${mnemonic} target ${name.toString()} looks like an address`);
    const severity = type === TYPE_CODES.NS && node.owner.equals(this.zone.origin) ? 'error' : 'warning';
    switch (this.kindOf(name)) {
      case 'alias':
        return this.say(index, severity, 'target-is-alias', `the ${mnemonic} target ${name.toString()} is an alias`);
      case 'nothing':
        return this.say(index, severity, 'target-without-address', `the ${mnemonic} target ${name.toString()} has no address`);
      case 'below a DNAME':
        return this.say(index, severity, 'target-is-alias', `the ${mnemonic} target ${name.toString()} is below a DNAME`);
      case 'below a cut':
        if (type === TYPE_CODES.NS && name.isAtOrBelow(node.owner)) this.say(index, 'warning', 'missing-glue', `the name server ${name.toString()} needs glue`);
    }
  }

  /** What a target in the zone is. A wildcard answers for what is not there. */
  private kindOf(name: Name): 'addresses' | 'alias' | 'below a cut' | 'below a DNAME' | 'nothing' {
    const { zone } = this;
    const { origin } = zone;
    const hidden = zone.hiddenBy(name);
    if (hidden?.type === TYPE_CODES.DNAME) return 'below a DNAME';
    if (zone.has(name, TYPE_CODES.A) || zone.has(name, TYPE_CODES.AAAA)) return 'addresses';
    if (hidden) return 'below a cut';
    if (zone.has(name, TYPE_CODES.CNAME)) return 'alias';
    if (!name.equals(origin) && zone.has(name, TYPE_CODES.NS)) return 'below a cut';
    if (zone.exists(name)) return 'nothing';
    for (let above = name.parent; above.isAtOrBelow(origin); above = above.parent) {
      const wildcard = above.child('*');
      if (zone.has(wildcard, TYPE_CODES.A) || zone.has(wildcard, TYPE_CODES.AAAA)) return 'addresses';
      if (zone.has(wildcard, TYPE_CODES.CNAME)) return 'alias';
      if (zone.exists(above)) break;
    }
    return 'nothing';
  }
}

/** A first look that costs nothing. */
function looksLikeAddress(name: Name): boolean {
  return name.wire[1]! >= 48 && name.wire[1]! <= 57;
}

const REPLACED: Readonly<Record<number, string>> = {
  [TYPE_CODES.SPF]: 'TXT (RFC 7208 §3.1)',
  [TYPE_CODES.A6]: 'AAAA (RFC 6563)',
  [TYPE_CODES.NXT]: 'NSEC (RFC 3755)',
  [TYPE_CODES.SIG]: 'RRSIG (RFC 3755)',
};

const OBSOLETE_ALGORITHMS: Readonly<Record<number, string>> = { 1: 'RSAMD5', 3: 'DSA', 5: 'RSASHA1', 6: 'NSEC3DSA', 7: 'NSEC3RSASHA1', 12: 'ECCGOST' };
