import { Name } from '../dns/name';
import { NameMap } from '../dns/nameMap';
import { namesIn, printRdata } from '../dns/rdata';
import { RRset } from '../dns/record';
import { TYPE_CODES, typeMnemonic } from '../dns/typeNames';
import { labelPurpose } from '../survey/purpose';

/** What a name is for besides the website, or instead of it. */
export interface OtherUse {
  /** `MX of @ leads here` */
  readonly words: string;
  /** Of the record that says so; undefined where the name alone does. */
  readonly type: string | undefined;
}

/** Types that lead to a host which is no website. HTTPS records are the website's own (RFC 9460 §9). */
const LEADING: ReadonlySet<number> = new Set([TYPE_CODES.MX, TYPE_CODES.SRV, TYPE_CODES.NS, TYPE_CODES.SVCB]);
/** Types that say of a name what it is used for. */
const SAYS: ReadonlySet<number> = new Set([...LEADING, TYPE_CODES.CAA, TYPE_CODES.TLSA]);
/** Ports of websites: a certificate that is bound there is the website's (RFC 6698 §3). */
const WEB_PORTS: ReadonlySet<string> = new Set(['_80', '_443']);
/** Aliases that are followed from what a record leads to. */
const HOPS = 8;

/**
 * Names of a zone that something else than the website uses, with each use: what MX, SRV, NS, SVCB and CAA records lead to, glue of a subzone,
 * certificates bound to other ports than a website's, and names that services usually have. Along aliases every name on the way has the use.
 *
 *     _imaps._tcp SRV 0 1 993 box  // box: SRV of _imaps._tcp leads here
 */
export function otherUses(zone: Name, sets: readonly RRset[]): (name: Name) => readonly OtherUse[] {
  const uses = new NameMap<OtherUse[]>();
  const aliases = new NameMap<Name>();
  for (const set of sets) {
    const target = set.type === TYPE_CODES.CNAME ? namesIn(set.type, set.data[0]!)[0] : undefined;
    if (target) aliases.set(set.owner, target);
  }
  const add = (name: Name, use: OtherUse): void => {
    const all = uses.getOr(name, () => []);
    if (!all.some((one) => one.words === use.words)) all.push(use);
  };
  const lead = (from: Name, words: string, type: number): void => {
    let at: Name | undefined = from;
    for (let hop = 0; at && hop < HOPS; hop++) {
      if (at.isAtOrBelow(zone)) add(at, { words, type: typeMnemonic(type) });
      at = aliases.get(at);
    }
  };
  for (const set of sets) {
    if (!SAYS.has(set.type)) continue;
    const owner = set.owner.relativeTo(zone);
    const words = `${typeMnemonic(set.type)} of ${owner} leads here`;
    // Nameservers of the zone itself belong to its DNS host.
    if (set.type === TYPE_CODES.NS && set.owner.equals(zone)) continue;
    if (LEADING.has(set.type)) for (const data of set.data) for (const name of namesIn(set.type, data)) if (!name.isRoot) lead(name, words, set.type);
    if (set.type === TYPE_CODES.CAA) for (const name of set.data.flatMap((data) => reportedTo(printRdata(set.type, data)))) lead(name, words, set.type);
    const [port, protocol] = owner.split('.');
    if (set.type === TYPE_CODES.TLSA && protocol?.startsWith('_') && !WEB_PORTS.has(port!))
      lead(set.owner.parent.parent, `TLSA at ${owner} binds its certificate`, set.type);
  }
  return (name) => {
    const told = uses.get(name);
    if (told || name.equals(zone)) return told ?? [];
    const use = labelPurpose(zone, name);
    return use && use.purpose !== 'website' ? [{ words: use.reason, type: undefined }] : [];
  };
}

/** Uses in words, as in a sentence: `MX of @ leads here; SRV of _imaps._tcp leads here` */
export function usesWords(uses: readonly OtherUse[]): string {
  return uses.map((use) => use.words).join('; ');
}

/** Hosts to which a certification authority is told to report by web (RFC 8659 §4.4). */
function reportedTo(caa: string): Name[] {
  const host = /iodef\s+"?https?:\/\/([a-z0-9.-]+)/i.exec(caa)?.[1];
  const name = host && Name.tryParse(`${host.replace(/\.$/, '')}.`);
  return name ? [name] : [];
}
