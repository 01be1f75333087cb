import { PageHop, PageLook } from '../survey/website';
import { ANSWERS, DROPS_PATH, REFUSED_CERTIFICATE, SILENT } from './pageFault';
import { isWishedEnd } from './site';
import { together } from './together';

/** What is otherwise, and where. */
export interface PageChange {
  readonly pages: readonly string[];
  /** `broken`: visitors are turned away or led astray; `otherwise`: they get something else than before. */
  readonly weight: 'broken' | 'otherwise';
  readonly text: string;
}

/** Headers that browsers and search engines hold a site to. */
const HELD: readonly string[] = ['strict-transport-security', 'content-security-policy', 'x-robots-tag', 'access-control-allow-origin', 'content-type'];

/**
 * How pages answer now against how they answered when the zone was surveyed: what the move did to the website. Pages that
 * were not looked at both times are passed over; so are certificates that are merely others, since a new host has its own.
 * What is broken comes first, and what is so of several pages once. `main`: the spelling at which visitors are to end; that they do, and
 * did not before, is as it should be.
 */
export function pageChanges(before: readonly PageLook[], now: readonly PageLook[], main: string | null = null): PageChange[] {
  return together(
    now.flatMap((look) => {
      const old = before.find((one) => one.start === look.start);
      return (old ? changesOf(old, look, main) : []).map(([weight, text]) => ({ pages: [look.start], weight, text }));
    }),
  );
}

type Said = readonly [PageChange['weight'], string];

function changesOf(old: PageLook, look: PageLook, main: string | null): Said[] {
  if (look.problem !== null) return old.problem === null ? [['broken', `${SILENT}${look.problem}`]] : [];
  if (old.problem !== null) return [['otherwise', 'answers, and did not before']];
  const said: Said[] = [];
  const [oldEnd, end] = [old.hops.at(-1), look.hops.at(-1)];
  if (!oldEnd || !end) return [];
  const refused = look.hops.find((hop) => refusal(hop));
  if (refused && !old.hops.some((hop) => refusal(hop))) said.push(['broken', `${REFUSED_CERTIFICATE}${refusal(refused)!}`]);
  if (end.status !== oldEnd.status)
    said.push([end.status >= 400 && oldEnd.status < 400 ? 'broken' : 'otherwise', `${ANSWERS}${end.status}, before ${oldEnd.status}`]);
  const isElsewhere = end.url !== oldEnd.url;
  if (isElsewhere && !(main !== null && end.status < 400 && isWishedEnd(look.start, oldEnd.url, end.url, main)))
    said.push(['otherwise', `ends at ${end.url}, before at ${oldEnd.url}`]);
  if (!isElsewhere && look.hops[0]!.status !== old.hops[0]!.status && look.hops.length > 1 && old.hops.length > 1)
    said.push(['otherwise', `redirects with ${look.hops[0]!.status}, before with ${old.hops[0]!.status}`]);
  if (look.keepsPath === false && old.keepsPath === true) said.push(['broken', DROPS_PATH]);
  // What stands on another page, or on one that says what went wrong, is not held against what stood here.
  if (end.status === oldEnd.status && look.page && old.page) said.push(...contentChanges(old.page, look.page));
  return said;
}

function refusal(hop: PageHop): string | null {
  return hop.certificate?.problem ?? null;
}

function contentChanges(old: NonNullable<PageLook['page']>, page: NonNullable<PageLook['page']>): Said[] {
  const said: Said[] = [];
  for (const name of HELD) {
    const [was, is] = [old.headers[name], page.headers[name]];
    if (was === is) continue;
    const hidden = name === 'x-robots-tag' && /noindex|none/i.test(is ?? '') && !/noindex|none/i.test(was ?? '');
    if (hidden) said.push(['broken', `search engines are told to leave it out (x-robots-tag: ${is!})`]);
    else if (is === undefined) said.push(['otherwise', `the header ${name} is gone, before ${was!}`]);
    else said.push(['otherwise', `the header ${name} is ${is}, before ${was ?? 'absent'}`]);
  }
  if (page.title !== old.title) said.push(['otherwise', `its title is ${quoted(page.title)}, before ${quoted(old.title)}`]);
  else if (page.fingerprint !== old.fingerprint && !page.cut && !old.cut)
    said.push(['otherwise', `reads otherwise: ${page.octets} octets, before ${old.octets}`]);
  return said;
}

function quoted(title: string | null): string {
  return title === null ? 'missing' : `“${title}”`;
}
