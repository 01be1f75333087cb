import { Name } from '../dns/name';
import { TYPE_CODES, typeCode } from '../dns/typeNames';
import { Scope } from '../move/scope';
import { Ruling } from '../rebuild/ruling';
import { PageLook, siteHosts } from '../survey/website';
import { ANSWERS, REFUSED_CERTIFICATE, SILENT } from './pageFault';
import { PageChange } from './pageChanges';
import { together } from './together';

const LEADS: ReadonlySet<number | undefined> = new Set([TYPE_CODES.A, TYPE_CODES.AAAA, TYPE_CODES.CNAME]);

/**
 * Pages that can be looked at where none was surveyed, as host names with a path: of the whole domain its two usual spellings, of some
 * names these, as far as the plan leads them anywhere.
 */
export function pagesPlanned(zone: Name, scope: Scope, rulings: readonly Ruling[]): string[] {
  const names = scope.kind === 'whole' ? siteHosts(zone) : scope.names;
  const leads = new Set(rulings.filter((row) => row.planned && LEADS.has(typeCode(row.type))).map((row) => row.owner.toLowerCase().replace(/\.$/, '')));
  return names.filter((name) => leads.has(name.toLowerCase())).map((name) => `${name}/`);
}

/** What is broken about pages with nothing to hold them against: they do not answer, say that there is nothing, or have a certificate that browsers refuse. */
export function pageFaults(looks: readonly PageLook[]): PageChange[] {
  return together(
    looks.flatMap((look) => {
      const text = faultOf(look);
      return text === undefined ? [] : [{ pages: [look.start], weight: 'broken' as const, text }];
    }),
  );
}

function faultOf({ problem, hops }: PageLook): string | undefined {
  if (problem !== null) return `${SILENT}${problem}`;
  const refused = hops.find((hop) => hop.certificate?.problem)?.certificate?.problem;
  if (refused) return `${REFUSED_CERTIFICATE}${refused}`;
  const status = hops.at(-1)?.status ?? 0;
  return status >= 400 ? `${ANSWERS}${status}` : undefined;
}
