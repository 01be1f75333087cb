import { toHex } from './bytes';
import { Name } from './name';
import { canonicalRdata, namesIn } from './rdata';
import { ResourceRecord } from './record';
import { TYPE_CODES, typeMnemonic } from './typeNames';
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

interface Placed {
  readonly record: ResourceRecord;
  readonly place: Place;
}

const SINGLETONS: ReadonlySet<number> = new Set([TYPE_CODES.SOA, TYPE_CODES.CNAME, TYPE_CODES.DNAME]);
/** May stand beside an alias (RFC 4034 §2.5, §3, §4; RFC 3007 §3 for KEY). */
const BESIDE_ALIAS: ReadonlySet<number> = new Set([TYPE_CODES.CNAME, TYPE_CODES.RRSIG, TYPE_CODES.NSEC, TYPE_CODES.KEY, TYPE_CODES.SIG]);

/** Holds a zone against the rules by which name servers load it, with the severity that bind 9.18 gives each. */
export function checkZone(file: ZoneFile, origin: Name): CheckedZone {
  const findings: ZoneFinding[] = file.findings.map(({ message, ...place }) => ({ ...place, severity: 'error', code: 'syntax', text: message }));
  const report = (place: Place, severity: ZoneFinding['severity'], code: string, text: string): void => void findings.push({ ...place, severity, code, text });
  const kept = keepServed(file, origin, report);
  const zone = new Contents(origin, kept);
  checkApex(zone, report);
  checkSets(zone, report);
  checkTargets(zone, report);
  findings.sort((a, b) => a.line - b.line || a.column - b.column);
  return {
    loads: findings.every((finding) => finding.severity !== 'error'),
    findings,
    records: kept.map(({ record }) => record).sort((a, b) => a.owner.compare(b.owner) || a.type - b.type),
  };
}

type Report = (place: Place, severity: ZoneFinding['severity'], code: string, text: string) => void;

/** Without data outside the zone and repetitions; a set has the TTL of its first record. */
function keepServed(file: ZoneFile, origin: Name, report: Report): Placed[] {
  const ttls = new Map<string, number>();
  const seen = new Set<string>();
  const kept: Placed[] = [];
  for (const [index, record] of file.records.entries()) {
    const place = file.places[index]!;
    if (!record.owner.isAtOrBelow(origin)) {
      report(place, 'warning', 'out-of-zone', `${record.owner.toString()} is outside the zone and is left out`);
      continue;
    }
    const set = `${record.type}/${record.owner.key}`;
    const ttl = ttls.get(set) ?? record.ttl;
    ttls.set(set, ttl);
    if (ttl !== record.ttl)
      report(place, 'warning', 'ttl-differs', `the TTLs of ${record.owner.toString()} ${typeMnemonic(record.type)} differ; the first, ${ttl}, counts`);
    const same = `${set}/${toHex(canonicalRdata(record.type, record.data))}`;
    if (seen.has(same)) report(place, 'warning', 'repeated', `${record.owner.toString()} ${typeMnemonic(record.type)} stands here twice with the same data`);
    else kept.push({ record: { ...record, ttl }, place });
    seen.add(same);
  }
  return kept;
}

/** The zone by owner, with what is asked of it below. */
class Contents {
  readonly owners = new Map<string, Placed[]>();

  constructor(
    readonly origin: Name,
    readonly all: readonly Placed[],
  ) {
    for (const placed of all) {
      const there = this.owners.get(placed.record.owner.key);
      if (there) there.push(placed);
      else this.owners.set(placed.record.owner.key, [placed]);
    }
  }

  at(owner: Name, type: number): Placed[] {
    return (this.owners.get(owner.key) ?? []).filter(({ record }) => record.type === type);
  }

  /** The delegation or DNAME that hides a name; undefined where it is served. */
  hiddenBy(owner: Name): Placed | undefined {
    for (let above = owner.parent; above.isBelow(this.origin); above = above.parent) {
      const cut = this.at(above, TYPE_CODES.NS)[0] ?? this.at(above, TYPE_CODES.DNAME)[0];
      if (cut) return cut;
    }
    return this.at(this.origin, TYPE_CODES.DNAME)[0];
  }

  /** What a target in the zone is: with addresses, an alias, below a cut, or without any of it. A wildcard answers for what is not there. */
  target(name: Name): 'elsewhere' | 'addresses' | 'alias' | 'below a cut' | 'nothing' {
    if (!name.isAtOrBelow(this.origin)) return 'elsewhere';
    const has = (owner: Name, type: number): boolean => this.at(owner, type).length > 0;
    if (has(name, TYPE_CODES.A) || has(name, TYPE_CODES.AAAA)) return 'addresses';
    if (has(name, TYPE_CODES.CNAME)) return 'alias';
    const hidden = name.equals(this.origin)
      ? undefined
      : (this.hiddenBy(name) ?? (this.at(name, TYPE_CODES.NS)[0] && !name.equals(this.origin) ? this.at(name, TYPE_CODES.NS)[0] : undefined));
    if (hidden) return 'below a cut';
    if (!this.owners.has(name.key)) {
      for (let above = name.parent; above.isAtOrBelow(this.origin); above = above.parent) {
        const wildcard = above.child('*');
        if (has(wildcard, TYPE_CODES.A) || has(wildcard, TYPE_CODES.AAAA)) return 'addresses';
        if (has(wildcard, TYPE_CODES.CNAME)) return 'alias';
        if (this.owners.has(above.key) || above.equals(this.origin)) break;
      }
    }
    return 'nothing';
  }
}

/** RFC 1035 §5.2: one SOA at the apex and none elsewhere, and NS records there (RFC 2181 §6.1). */
function checkApex(zone: Contents, report: Report): void {
  const first: Place = zone.all[0]?.place ?? { line: 1, column: 1 };
  if (zone.at(zone.origin, TYPE_CODES.SOA).length === 0) report(first, 'error', 'no-soa', 'the zone has no SOA record at its apex');
  if (zone.at(zone.origin, TYPE_CODES.NS).length === 0) report(first, 'error', 'no-ns', 'the zone has no NS records at its apex');
  for (const { record, place } of zone.all) {
    const atApex = record.owner.equals(zone.origin);
    if (record.type === TYPE_CODES.SOA && !atApex)
      report(place, 'error', 'soa-below-apex', `an SOA record stands at ${record.owner.toString()}, not at the apex`);
    if (record.type === TYPE_CODES.DS && atApex) report(place, 'error', 'ds-at-apex', 'a DS record at the apex belongs to the parent zone');
    if (record.type === TYPE_CODES.NS && record.owner.isWildcard) report(place, 'error', 'ns-wildcard', 'a wildcard cannot be delegated');
  }
}

/** RFC 1034 §3.6.2, RFC 2181 §10.1, RFC 6672 §2.4: what cannot stand together. */
function checkSets(zone: Contents, report: Report): void {
  for (const there of zone.owners.values()) {
    const owner = there[0]!.record.owner.toString();
    const alias = there.find(({ record }) => record.type === TYPE_CODES.CNAME);
    const beside = there.find(({ record }) => !BESIDE_ALIAS.has(record.type));
    if (alias && beside)
      report(there.indexOf(alias) > there.indexOf(beside) ? alias.place : beside.place, 'error', 'alias-beside-data', `${owner} has a CNAME and other data`);
    for (const type of SINGLETONS) {
      const several = there.filter(({ record }) => record.type === type);
      if (several.length > 1) report(several[1]!.place, 'error', 'more-than-one', `${owner} has more than one ${typeMnemonic(type)}`);
    }
    const hidden = zone.hiddenBy(there[0]!.record.owner);
    const served = there.filter(({ record }) => !(hidden?.record.type === TYPE_CODES.NS && (record.type === TYPE_CODES.A || record.type === TYPE_CODES.AAAA)));
    if (hidden && served[0])
      report(served[0].place, 'warning', 'hidden', `${owner} is hidden by the ${typeMnemonic(hidden.record.type)} at ${hidden.record.owner.toString()}`);
  }
}

/** Targets in the zone that lead nowhere: fatal for the zone's own name servers, a warning elsewhere (RFC 1912 §2.4, §2.8). */
function checkTargets(zone: Contents, report: Report): void {
  const TARGETED: ReadonlySet<number> = new Set([TYPE_CODES.NS, TYPE_CODES.MX, TYPE_CODES.SRV]);
  for (const { record, place } of zone.all) {
    if (!TARGETED.has(record.type)) continue;
    const name = namesIn(record.type, record.data)[0];
    if (!name || name.labels.length === 0) continue;
    const type = typeMnemonic(record.type);
    const atApex = record.type === TYPE_CODES.NS && record.owner.equals(zone.origin);
    const severity = atApex ? 'error' : 'warning';
    const kind = zone.target(name);
    if (kind === 'alias') report(place, severity, 'target-is-alias', `the ${type} target ${name.toString()} is an alias`);
    else if (kind === 'nothing') report(place, severity, 'target-without-address', `the ${type} target ${name.toString()} has no address`);
    else if (kind === 'below a cut' && record.type === TYPE_CODES.NS && name.isAtOrBelow(record.owner))
      report(place, 'warning', 'missing-glue', `the name server ${name.toString()} needs glue`);
  }
}
