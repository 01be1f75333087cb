import { AllGiven } from '@wanderon/contract';
import { DecisionKind, Former, HostKnowledge, Instant, LegKind, NextLeg, RRsetText, RulingKind, Scope, ServerAt } from '@wanderon/core';

/** Rows of the tables of moves, as they stand. */
export interface MoveRow {
  id: string;
  domain_id: string;
  domain: string;
  client: string | null;
  note: string;
  scope: Scope;
  state: 'open' | 'closed' | 'abandoned';
  created_at: Instant;
  closed_at: Instant | null;
  wake_at: Instant | null;
  version: number;
  /** The version that the summary was made of. */
  summarised: number;
}

export interface LegRow {
  id: string;
  move_id: string;
  kind: LegKind;
  /** The zone goes into another account behind the same nameservers. */
  account: boolean;
  scope: Scope;
  position: number;
  /** The leg that was meant to follow; the one that this sets back. */
  next: NextLeg | null;
  /** What was done outward for ways that were chosen before. */
  former: Former | null;
  back_of: string | null;
  back_since: Instant | null;
  back_raised: boolean;
  /** The survey that the plan is made from, and the latest one. */
  survey_id: string | null;
  last_survey: string | null;
  old_dns_host: string | null;
  old_web_host: string | null;
  new_dns_host: string | null;
  new_web_host: string | null;
  old_nameservers: string[];
  new_nameservers: string[];
  old_servers: ServerAt[];
  new_servers: ServerAt[];
  fronted: RRsetText[];
  keys_ttl: number | null;
  /** What the new place gave, and what was said of it; null: nothing. */
  given: AllGiven | null;
  /** The new web host as it was known when the way was chosen; null: as it is known now. */
  web: HostKnowledge | null;
}

/** It is known where the leg leads: a DNS host whose nameservers take the place of the old, or a web host for records in place. */
export function isChosen(row: Pick<LegRow, 'kind' | 'account' | 'new_dns_host' | 'new_web_host' | 'back_of'>): boolean {
  if (row.back_of !== null) return true;
  return row.kind === 'repoint' && !row.account ? row.new_web_host !== null : row.new_dns_host !== null;
}

/** A row of a ledger as it was proposed; `planned` is 'found' where it is what was found. */
export interface ProposedRow {
  readonly id: string;
  readonly owner: string;
  readonly type: string;
  readonly ruling: RulingKind;
  readonly found: RRsetText | null;
  readonly planned: RRsetText | 'found' | null;
  readonly reason: string;
}

/** All that is proposed for a leg: it changes as a whole, and has another id then. */
export interface ProposalRow {
  leg_id: string;
  id: string;
  rows: readonly ProposedRow[];
}

export interface DecisionRow {
  id: string;
  leg_id: string;
  kind: DecisionKind;
  subject: string;
  value: unknown;
  person_id: string | null;
  at: Instant;
  undoes: string | null;
}

export interface ObservationRow {
  id: string;
  leg_id: string;
  kind: string;
  subject: string;
  item: string;
  server: string;
  value: unknown;
  digest: string;
  problem: string | null;
  refused: boolean;
  note: Record<string, unknown> | null;
  first_seen: Instant;
  last_seen: Instant;
  every: number;
  count: string;
}
