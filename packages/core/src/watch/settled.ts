import { Instant } from '../timetable/instant';
import { Verdict } from './verdict';

export interface SettledInput {
  readonly now: Instant;
  readonly lastHorizon: Instant;
  readonly authoritiesNew: boolean;
  /** Questions to lookouts that were never put. */
  readonly unasked: number;
  /** The last verdict of every lookout on every changing set; `none` with `silent` for one that no longer answers. */
  readonly lookouts: readonly { readonly lookout: string; readonly verdict: Verdict; readonly silent: boolean; readonly lookedAt: Instant }[];
}

export interface SettledResult {
  readonly settled: boolean;
  /** What is still missing, in words; empty when settled. */
  readonly missing: readonly string[];
  readonly setAside: readonly string[];
}

/** DESIGN "settled": authorities and answering lookouts all new, and every horizon passed; silent lookouts are named. */
export function settledWhen(input: SettledInput): SettledResult {
  const missing: string[] = [];
  if (!input.authoritiesNew) missing.push('not every authority answers with the new set');
  if (input.unasked > 0) missing.push(`${input.unasked} ${input.unasked === 1 ? 'question was' : 'questions were'} not put to the lookouts yet`);
  const setAside = [...new Set(input.lookouts.filter((look) => look.silent).map((look) => look.lookout))];
  const waiting = [...new Set(input.lookouts.filter((look) => !look.silent && look.verdict !== 'new').map((look) => look.lookout))];
  if (waiting.length > 0) missing.push(`${waiting.length} ${waiting.length === 1 ? 'lookout is' : 'lookouts are'} not new: ${waiting.join(', ')}`);
  const stale = [...new Set(input.lookouts.filter((look) => !look.silent && look.lookedAt < input.lastHorizon).map((look) => look.lookout))];
  if (input.now < input.lastHorizon) missing.push('a horizon has not passed');
  else if (stale.length > 0) missing.push(`${stale.length} ${stale.length === 1 ? 'lookout has' : 'lookouts have'} not been asked since the last horizon`);
  if (input.lookouts.length > 0 && input.lookouts.every((look) => look.silent)) missing.push('no lookout answers');
  return { settled: missing.length === 0, missing, setAside };
}
