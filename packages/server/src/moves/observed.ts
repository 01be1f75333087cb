import {
  Astray,
  DriftSight,
  LegPlan,
  LookoutSight,
  ParentSight,
  Seen,
  SightRow,
  Work,
  ZoneSight,
  inScope,
  seenServers,
  setsBeforehand,
  stillDrifting,
} from '@wanderon/core';
import { ObservationRow } from './move.rows';

const REFUSED: ZoneSight = { serial: null, refused: true, sets: {} };

/** An observation of one server as it is folded. */
export function sightRow<V>(row: ObservationRow): SightRow<V> {
  return {
    server: row.server,
    address: row.subject,
    value: row.value === null ? undefined : (row.value as V),
    problem: row.problem ?? undefined,
    refused: row.refused,
    first: row.first_seen,
    last: row.last_seen,
    every: row.every,
  };
}

/** What came of the last attempt at each step, by step. */
export function workOf(observations: readonly ObservationRow[]): Map<string, Work> {
  const rows = observations.filter((row) => row.kind === 'work');
  return new Map(
    rows.map((row): [string, Work] => {
      const value = row.value as Omit<Work, 'since' | 'at'>;
      return [row.subject, { ...value, since: row.first_seen, at: row.last_seen }];
    }),
  );
}

/** Observations of a leg as its rules ask for them. */
export function seenOf(observations: readonly ObservationRow[], plan: LegPlan, watchers: number, website: Seen['website']): Seen {
  const of = (kind: string): ObservationRow[] => observations.filter((row) => row.kind === kind);
  const lookouts = of('lookout').map((row): LookoutSight => {
    const value = row.value as Pick<LookoutSight, 'verdict' | 'rcode' | 'answer' | 'silent'>;
    const remainingTtl = (row.note?.['remainingTtl'] ?? null) as number | null;
    return { lookout: row.subject, key: row.item, ...value, first: row.first_seen, last: row.last_seen, remainingTtl };
  });
  const looked: Record<string, number> = {};
  const planned: Record<string, number> = {};
  for (const row of of('look')) {
    looked[row.subject] = row.last_seen;
    planned[row.subject] = row.every;
  }
  const again = of('look').findLast((row) => row.subject === 'lookouts')?.note?.['next'];
  const latest = (kind: string): ObservationRow | undefined =>
    of(kind).reduce<ObservationRow | undefined>((a, b) => (a && a.last_seen > b.last_seen ? a : b), undefined);
  const [drift, registration] = [latest('drift'), latest('registration')];
  return {
    parent: seenServers(of('parent').map((row) => sightRow<ParentSight>(row))),
    zones: seenServers(
      of('zone').map((row) => sightRow<ZoneSight>(row)),
      REFUSED,
    ),
    lookouts,
    watchers,
    drift: drift && {
      at: drift.last_seen,
      problem: drift.problem,
      changes: stillDrifting((drift.value as { changes: DriftSight[] } | null)?.changes ?? [], plan.rulings, setsBeforehand(plan)).filter((one) =>
        inScope(plan.scope, one.owner, one.type),
      ),
    },
    registration: registration && {
      at: registration.last_seen,
      problem: registration.problem,
      statuses: (registration.value as { statuses: string[] } | null)?.statuses ?? [],
      expires: (registration.value as { expires?: number | null } | null)?.expires ?? null,
      // Who it is does not change while the registry cannot be asked.
      registrar: of('registration').reduce<string | null>((known, row) => (row.value as { registrar?: string | null } | null)?.registrar ?? known, null),
    },
    website,
    astray: new Map(of('astray').map((row) => [row.subject, (row.value as { found: Astray[] } | null)?.found ?? []])),
    looked,
    planned,
    lookoutsAgain: typeof again === 'number' ? again : undefined,
  };
}
