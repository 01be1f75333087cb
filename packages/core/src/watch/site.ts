import { Name } from '../dns/name';
import { Scope } from '../move/scope';
import { Ruling } from '../rebuild/ruling';
import { PageLook, hostOf, otherSpelling } from '../survey/website';
import { PageChange } from './pageChanges';
import { DROPS_PATH } from './pageFault';
import { pagesPlanned } from './pageFaults';
import { together } from './together';

/** What is wanted of a website besides its records; host names without a dot at the end, null where it is not said. */
export interface SiteWish {
  /** The spelling at which every visitor is to end. */
  readonly main: string | null;
  /** Where the web host shows the site before the domain leads there. */
  readonly provisional: string | null;
}

export const NO_WISH: SiteWish = { main: null, provisional: null };

/** The spellings of the website that the plan leads anywhere, of which one can be the main one. */
export function spellingsOf(zone: Name, scope: Scope, rulings: readonly Ruling[]): string[] {
  return pagesPlanned(zone, scope, rulings).map((page) => page.replace(/\/$/, ''));
}

/** Pages that are looked at for what is wanted, besides others: as host names with a path. */
export function pagesWished({ main, provisional }: SiteWish, spellings: readonly string[]): string[] {
  const pair = main === null ? [] : spellings.filter((one) => one === main || one === otherSpelling(main));
  return [...pair, ...(provisional === null ? [] : [provisional])].map((host) => `${host}/`);
}

/**
 * The provisional address of a site, where its host forms them all alike: `{zone}` stands for the domain, `{label}` for its first label.
 *
 *     provisionalOf('{label}.sites.larkspur.example', 'canoe-yard.example') // canoe-yard.sites.larkspur.example
 */
export function provisionalOf(pattern: string, domain: string): string | null {
  if (pattern === '') return null;
  return pattern.replaceAll('{zone}', domain).replaceAll('{label}', domain.split('.')[0]!);
}

/** Redirects that a visitor should meet on the way to the main spelling: one, and one more where they came without TLS. */
const REDIRECTS = { http: 2, https: 1 } as const;

/**
 * What is wrong about how the spellings lead to the main one, and about the provisional address. What does not answer at all is told by
 * others. `switched`: the domain leads to the new host, where the provisional address has had its use.
 */
export function siteFaults(looks: readonly PageLook[], { main, provisional }: SiteWish, switched: boolean): PageChange[] {
  return together(
    looks.flatMap((look) => {
      const end = look.hops.at(-1);
      if (main === null || look.problem !== null || !end || end.status >= 400) return [];
      const from = hostOf(look.start);
      const said = from === provisional && switched ? provisionalFault(hostOf(end.url), main) : isSpelling(from, main) ? spellingFault(look, main) : undefined;
      return said ? [{ pages: [look.start], weight: said[0], text: said[1] }] : [];
    }),
  );
}

/** A spelling of the website ends at the main one now, at the same page as before: as it is wanted, and no change to be told. */
export function isWishedEnd(start: string, before: string, now: string, main: string): boolean {
  return isSpelling(hostOf(start), main) && hostOf(now) === main && pathOf(now) === pathOf(before);
}

type Said = readonly [PageChange['weight'], string];

function spellingFault(look: PageLook, main: string): Said | undefined {
  const end = look.hops.at(-1)!;
  if (hostOf(end.url) !== main) return ['broken', `ends at ${end.url}, and ${main} is the main spelling`];
  if (look.keepsPath === false) return ['broken', DROPS_PATH];
  const redirects = look.hops.length - 1;
  const secure = look.start.startsWith('https:');
  if (redirects > REDIRECTS[secure ? 'https' : 'http']) return ['otherwise', `takes ${redirects} redirects to ${main}: one is enough`];
  return undefined;
}

function provisionalFault(end: string, main: string): Said | undefined {
  return end === main ? undefined : ['otherwise', `is the provisional address, and still a site of its own: search engines see two. Have it lead to ${main}`];
}

function isSpelling(host: string, main: string): boolean {
  return host === main || host === otherSpelling(main);
}

function pathOf(url: string): string {
  return url.replace(/^https?:\/\/[^/?#]*/i, '');
}
