import { Name } from '../dns/name';
import { Edge, Fronting } from '../hosts/fronting';
import { CheckInput } from '../rebuild/checks/check';
import { rrsetRead } from '../dns/record';
import { CheckedWeb, HostKnowledge } from '../rebuild/host';
import { isLead } from '../rebuild/leads';
import { presentWeb } from '../rebuild/presentWeb';
import { Ruling } from '../rebuild/ruling';
import { Outside } from '../survey/outside';
import { SeenRedirect } from '../survey/website';
import { nameKey } from '../watch/verdict';
import { rebuildsZone } from './account';
import { takesApexAlias } from './apexAlias';
import { frontingOf } from './fronted';
import { LegPlan } from './plan';
import { rebuildsRedirect } from './redirects';
import { Scope } from './scope';
import { Seen } from './seen';

/** What the checks of a leg's plan rest on beside its rows, in a shape that goes over HTTP: the browser checks what is being typed by the same. */
export interface CheckBasis extends Pick<CheckInput, 'lacks' | 'most' | 'ttls' | 'apexAlias' | 'fronted' | 'redirects' | 'faults' | 'sharedServers'> {
  readonly oldWeb: readonly CheckedWeb[];
  readonly newWeb: CheckedWeb | null;
  readonly leaves: CheckInput['leaves'] | null;
  readonly edge: {
    readonly host: string;
    readonly fronting: readonly (readonly [owner: string, state: Fronting])[];
    readonly how: Edge;
    readonly standIn: string;
  };
  readonly outside: Outside | null;
  /** Of other names nothing is said. */
  readonly scope: Scope;
}

/** `website`: the last look at the pages where the plan leads. */
export function checkBasis(plan: LegPlan, website?: Seen['website']): CheckBasis {
  const { oldWeb, newWeb, fronted, scope, newHost, oldHost, isBack } = plan;
  // Where the zone stays, what it holds it can hold.
  const anew = rebuildsZone(plan);
  const { habits } = newHost ?? {};
  return {
    oldWeb: [...oldWeb, ...presentOf(plan)].map(checkedWeb),
    newWeb: newWeb ? checkedWeb(newWeb) : null,
    fronted,
    outside: plan.outside ?? null,
    scope,
    lacks: anew ? (newHost?.lacks ?? []) : [],
    most: anew ? (habits?.most ?? null) : null,
    ttls: anew ? (newHost?.ttls ?? null) : null,
    redirects: isBack ? [] : (plan.redirects ?? []).filter((one) => !rebuildsRedirect(plan, one) && !leadsOn(website, one)),
    faults: isBack ? [] : (website?.faults ?? []),
    sharedServers: sharedServers(plan),
    leaves: anew && !isBack && oldHost ? { name: oldHost.name, forwards: oldHost.habits?.forwards ?? [] } : null,
    edge: {
      host: newHost?.name ?? 'the DNS host',
      fronting: [...frontingOf(plan)],
      how: habits?.edge ?? 'unknown',
      standIn: habits?.standIn ?? '',
    },
    apexAlias: {
      host: newHost?.name ?? 'its DNS host',
      takes: takesApexAlias(newHost),
      known: newHost?.keyed === true || (habits?.apexAlias ?? 'unknown') !== 'unknown',
    },
  };
}

/** Where the website was found, whether or not somebody described that host; nothing where the plan moves none, or takes it back. */
function presentOf({ zone, rulings, oldWeb, newWeb, isBack, fronted }: LegPlan): readonly HostKnowledge[] {
  if (!newWeb || isBack) return [];
  const found = rulings.flatMap((row) => (row.found && isLead(row.type) ? [rrsetRead(row.found)] : []));
  const present = presentWeb(zone, found, [...oldWeb, newWeb], fronted);
  return present ? [present] : [];
}

/** What the checks are given of rows on that basis. */
export function checkInputOf({ newWeb, leaves, edge, ...basis }: CheckBasis, zone: Name, rulings: readonly Ruling[]): CheckInput {
  return { ...basis, zone, rulings, newWeb: newWeb ?? undefined, leaves: leaves ?? undefined, edge: { ...edge, fronting: new Map(edge.fronting) } };
}

/** The last look where the plan leads saw this very redirect. */
function leadsOn(website: Seen['website'], { from, to }: SeenRedirect): boolean {
  return website?.redirects.some((one) => one.from === from && one.to === to) ?? false;
}

/** Names of servers that the old and the new set have in common. */
function sharedServers({ kind, oldNameservers, newNameservers }: LegPlan): string[] {
  if (kind !== 'delegation') return [];
  const old = new Set(oldNameservers.map(nameKey));
  return newNameservers.filter((name) => old.has(nameKey(name)));
}

function checkedWeb({ name, addresses, aliasTarget, issuers, forcesHttps }: CheckedWeb): CheckedWeb {
  return { name, addresses, aliasTarget, issuers, forcesHttps };
}
