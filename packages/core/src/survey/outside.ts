import { getDomain } from 'tldts';
import { Name } from '../dns/name';
import { RRset } from '../dns/record';
import { TYPE_CODES } from '../dns/typeNames';
import { isDmarc, readDmarc } from '../policy/dmarc';
import { isMtaSts } from '../policy/mtaSts';
import { textOf } from './namesInText';
import { plain } from './words';

/** What stands outside of a zone and decides what its records mean, as it was when the zone was surveyed. Names absolute. */
export interface Outside {
  /** The CAA set that counts for names of the zone without one of their own, as far as the way up could be asked (RFC 8659 §3); null: none. */
  readonly caa: { readonly owner: string; readonly data: readonly string[] } | null;
  /** Whether domains take the reports that DMARC policies of the zone have sent to them (RFC 7489 §7.1); null: it could not be asked. */
  readonly reports: readonly { readonly about: string; readonly to: string; readonly takes: boolean | null }[];
  /** The policy for mail as its page has it; null where the zone announces none. `text` null: why it was not read. */
  readonly mtaSts: { readonly text: string | null; readonly problem: string | null } | null;
}

/** A question to another domain, whether it takes reports about one. */
export interface ReportQuestion {
  /** The domain that the policy is about, and the one to which reports go; without final dot. */
  readonly about: string;
  readonly to: string;
  readonly name: Name;
}

/** Domains of others that are asked: a policy could name thousands. */
const ASKED = 8;

/** What has to be asked of others to know whether reports are taken (RFC 7489 §7.1); none within the same organisation. */
export function reportQuestions(zone: Name, sets: readonly RRset[]): ReportQuestion[] {
  const questions = new Map<string, ReportQuestion>();
  for (const { owner, type, data } of sets) {
    if (type !== TYPE_CODES.TXT || owner.toString().slice(0, 7).toLowerCase() !== '_dmarc.') continue;
    const about = owner.parent;
    const policy = data.map(textOf).filter(isDmarc).map(readDmarc);
    for (const to of policy.flatMap((one) => (one.ok ? one.reports : []))) {
      const place = Name.tryParse(`${to}.`);
      // Of one organisation nobody asks: by the domain that is registered (RFC 7489 §3.2).
      if (!place || place.isAtOrBelow(zone) || getDomain(to) === getDomain(plain(about.toString()))) continue;
      const name = Name.tryParse(`${about.toString()}_report._dmarc.${place.toString()}`);
      if (name) questions.set(name.key, { about: plain(about.toString()), to: plain(place.toString()), name });
    }
  }
  return [...questions.values()].slice(0, ASKED);
}

/** True for texts by which a domain says that it takes reports (RFC 7489 §7.1): its own policy says more than that. */
export function takesReports(texts: readonly string[]): boolean {
  return texts.some(isDmarc);
}

/** Whether the zone announces a policy for mail (RFC 8461 §3.1). */
export function announcesMtaSts(zone: Name, sets: readonly RRset[]): boolean {
  const owner = zone.child('_mta-sts');
  return sets.some((set) => set.type === TYPE_CODES.TXT && set.owner.equals(owner) && set.data.map(textOf).some(isMtaSts));
}

/** Names above a zone at which CAA may stand, the nearest first; none where the zone's own apex has it. The root has none. */
export function caaQuestions(zone: Name, sets: readonly RRset[]): Name[] {
  if (sets.some((set) => set.type === TYPE_CODES.CAA && set.owner.equals(zone))) return [];
  const above: Name[] = [];
  for (let name = zone.parent; !name.isRoot; name = name.parent) above.push(name);
  return above;
}
