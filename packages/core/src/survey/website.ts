import { Name } from '../dns/name';
import { Instant } from '../timetable/instant';
import { plain } from './words';

/** One step from where a visitor began to where they ended. */
export interface PageHop {
  readonly url: string;
  readonly address: string;
  readonly status: number;
  readonly certificate: {
    readonly names: readonly string[];
    readonly issuer: string;
    readonly from: Instant;
    readonly until: Instant;
    /** SHA-256, hex. */
    readonly fingerprint: string;
    /** Why a browser would refuse it. */
    readonly problem: string | null;
  } | null;
}

/** How an address of a page answered. */
export interface PageLook {
  readonly start: string;
  readonly hops: readonly PageHop[];
  readonly problem: string | null;
  /** Whether its redirect takes the path along; null where it does not redirect, or nobody knows. */
  readonly keepsPath: boolean | null;
  readonly page: {
    readonly title: string | null;
    /** SHA-256 of the text that visitors read, hex. */
    readonly fingerprint: string;
    readonly octets: number;
    readonly cut: boolean;
    readonly headers: Readonly<Record<string, string>>;
  } | null;
}

/** A host name of a website that leads its visitors to another one; without final dots, in lower case. */
export interface SeenRedirect {
  readonly from: string;
  readonly to: string;
}

/**
 * The host names that led elsewhere: what redirected was a web server, which no record rebuilds. Over HTTPS alone is the same host.
 *
 *     https://canoes.example/ -> https://www.canoes.example/  // from canoes.example to www.canoes.example
 */
export function redirectsSeen(looks: readonly PageLook[]): SeenRedirect[] {
  const seen = new Map<string, SeenRedirect>();
  for (const { start, hops, problem } of looks) {
    const end = hops.at(-1);
    if (problem !== null || !end || end.status >= 400) continue;
    const [from, to] = [hostOf(start), hostOf(end.url)];
    if (from !== '' && to !== '' && from !== to) seen.set(from, { from, to });
  }
  return [...seen.values()];
}

/** The host of an address of a page, in lower case; empty where there is none. */
export function hostOf(url: string): string {
  return (/^https?:\/\/([^/:?#]+)/i.exec(url)?.[1] ?? '').toLowerCase().replace(/\.$/, '');
}

/** `www.canoes.example` of `canoes.example`, and the reverse. */
export function otherSpelling(main: string): string {
  return main.startsWith('www.') ? main.slice('www.'.length) : `www.${main}`;
}

/** Hosts of a domain's own website: the domain and its `www`, as they stand in the address of a page. */
export function siteHosts(zone: Name): readonly string[] {
  const apex = plain(zone.toString()).toLowerCase();
  return [apex, otherSpelling(apex)];
}

/** What is worth saying of how a site answers today. */
export function remarksOnPages(looks: readonly PageLook[], takenAt: Instant): string[] {
  const remarks: string[] = [];
  for (const look of looks) {
    const bad = look.hops.find((hop) => hop.certificate && hop.certificate.problem !== null);
    if (bad) remarks.push(`${bad.url}: a browser refuses its certificate, ${bad.certificate!.problem!}.`);
    const ending = look.hops.find((hop) => hop.certificate && hop.certificate.problem === null && hop.certificate.until - takenAt < 14 * 86_400);
    if (ending) remarks.push(`${ending.url}: its certificate ends within two weeks.`);
    if (look.keepsPath === false) remarks.push(`${look.start} redirects every page to the front page.`);
  }
  const strict = looks.filter((look) => look.start.startsWith('https:') && look.page?.headers['strict-transport-security'] !== undefined);
  if (strict.length > 0) remarks.push('Browsers were told to come by HTTPS alone (HSTS): the new host needs a certificate from the first visit on.');
  const rest = new Map<string, PageLook[]>();
  for (const look of looks) {
    const end = look.hops.at(-1);
    if (look.page && end) rest.set(end.url, [...(rest.get(end.url) ?? []), look]);
  }
  if (rest.size > 1)
    remarks.push(`The spellings end at ${rest.size} different addresses: ${[...rest.keys()].join(', ')}. Visitors and search engines see several sites.`);
  return [...new Set(remarks)];
}
