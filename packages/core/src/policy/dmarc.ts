import { readTagList } from './tagList';

export type DmarcRecord =
  | { readonly ok: true; readonly policy: 'none' | 'quarantine' | 'reject'; /** Domains to which reports go. */ readonly reports: readonly string[] }
  | { readonly ok: false; readonly problem: string };

const POLICIES = ['none', 'quarantine', 'reject'] as const;

/** True for a text that receivers take for a DMARC policy (RFC 7489 §6.3). */
export function isDmarc(text: string): boolean {
  return /^v\s*=\s*DMARC1\s*(?:;|$)/i.test(text);
}

/** Reads a DMARC policy record (RFC 7489 §6.3, §6.4). Never throws. */
export function readDmarc(text: string): DmarcRecord {
  if (!isDmarc(text)) return { ok: false, problem: 'v=DMARC1 has to stand first' };
  const tags = readTagList(text);
  if (!tags) return { ok: false, problem: 'it is no list of tags' };
  const policy = POLICIES.find((one) => one === tags.get('p')?.toLowerCase());
  if (policy === undefined)
    return { ok: false, problem: `p has to be none, quarantine or reject${tags.has('p') ? `, and is ${tags.get('p')!.slice(0, 40)}` : ''}` };
  const reports = placesOf(tags).flatMap((uri) => MAILTO.exec(uri)?.[1]?.toLowerCase() ?? []);
  return { ok: true, policy, reports: [...new Set(reports)] };
}

/** `mailto:` and an address, and how large a report may be (RFC 7489 §6.2). */
const MAILTO = /^mailto:[^@\s]+@([^\s!]+)(?:!\d+[kmgt]?)?$/i;

function placesOf(tags: ReadonlyMap<string, string>): string[] {
  return ['rua', 'ruf'].flatMap((tag) => (tags.get(tag) ?? '').split(',')).flatMap((uri) => uri.trim() || []);
}

/** Places for reports that are none; of a text that cannot be read as tags none are known. */
export function badReports(text: string): string[] {
  const tags = readTagList(text);
  return tags ? placesOf(tags).filter((uri) => !MAILTO.test(uri)) : [];
}
