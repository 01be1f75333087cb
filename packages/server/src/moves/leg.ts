import { Instant, Purpose, RRsetText, Ruling, RulingKind, Scope, SeenBetween, StepKind, StepState } from '@wanderon/core';

/** One server by name and address. */
export interface ServerAt {
  readonly server: string;
  readonly address: string;
}

/** What has been seen of a leg so far. TTLs in seconds. */
export interface Facts {
  /** Largest TTL of the NS set over all parent servers, of the apex NS set at the old authorities, and negative. */
  P?: number;
  C?: number;
  N?: number;
  oldAuthorities?: ServerAt[];
  /** The parent published a DS when it was last looked at. */
  ds?: boolean;
  /** The latest survey of the zone; the plan was made from the leg's own. */
  lastSurvey?: string;
  /** A person asked for one more survey beside the plan. */
  surveyAgain?: boolean;
  /** What changed in the old zone since the survey; absent until it was looked at. */
  drift?: string[];
  /** Per server address, of the observation named: last seen old, first seen new. */
  seen?: Record<string, { lastOld: Instant; firstNew?: Instant }>;
  tl?: SeenBetween;
  ts?: Instant;
  t0?: SeenBetween;
  te?: SeenBetween;
  turned?: boolean;
  plannedSwitch?: Instant;
  /** TTL in seconds to which the old host's records are lowered; 300 where nobody said otherwise. */
  lowerTo?: number;
  /** What a person said of hints of a survey, by owner and text; a hint that comes up again is still answered. */
  hintAnswers?: { owner: string; text: string; answer: 'not ours' | 'retired' }[];
  /** What a person said a record set is for. */
  purposes?: { owner: string; type: string; purpose: Purpose }[];
  /** What fronted sets hold, as a person read it in the panel. */
  stored?: { owner: string; type: string; data: string[] }[];
  /** Sets as the host answered them in place of what it stores, which nobody has said yet. */
  fronted?: RRsetText[];
  /** Host names with a path whose pages are looked at, beside the front ones. */
  pages?: string[];
  nextLookAt?: Instant;
  /** When the website was last looked at where the plan leads; a person who asks for it sets it to 0. */
  pagesLookedAt?: Instant;
  authoritiesNew?: boolean;
  parentSets?: { server: string; address: string; nameservers: string[]; signed: boolean; problem?: string }[];
}

export interface StepRow {
  kind: StepKind;
  state: StepState;
  due_at: Instant | null;
  done_at: Instant | null;
  decided_by: string | null;
  decided_at: Instant | null;
  problem: string | null;
}

export interface RulingRow {
  id: string;
  leg_id: string;
  position: number;
  owner: string;
  type: string;
  ruling: RulingKind;
  found: RRsetText | null;
  planned: RRsetText | null;
  reason: string;
  decided_by: string | null;
}

export interface ServedState {
  at: Instant;
  servers: { server: string; address: string; problem: string | null; differs: RRsetText[] }[];
}

export interface Leg {
  id: string;
  move_id: string;
  kind: 'delegation' | 'repoint';
  scope: Scope;
  survey_id: string | null;
  old_dns_host: string | null;
  old_web_host: string | null;
  new_dns_host: string | null;
  new_web_host: string | null;
  old_nameservers: string[];
  new_nameservers: string[];
  facts: Facts;
  served: ServedState | null;
}

export interface Move {
  id: string;
  domain_id: string;
  domain: string;
  client: string | null;
  scope: Scope;
  state: 'open' | 'closed' | 'abandoned';
  created_at: Instant;
  closed_at: Instant | null;
  wake_at: Instant | null;
}

export function rulingOf(row: RulingRow): Ruling {
  return { owner: row.owner, type: row.type, ruling: row.ruling, found: row.found ?? undefined, planned: row.planned ?? undefined, reason: row.reason };
}
