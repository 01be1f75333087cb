import { Instant } from '../timetable/instant';
import { Verdict } from './verdict';

/** One run of what a lookout said of one question. */
export interface LookRun {
  readonly lookout: string;
  readonly key: string;
  readonly verdict: Verdict;
  readonly silent: boolean;
  readonly first: Instant;
}

/** The share of answers that were old, stepwise: a point for every moment at which a run began. A mixed answer is half old. */
export function oldShare(runs: readonly LookRun[]): { at: Instant; old: number }[] {
  const current = new Map<string, LookRun>();
  const points: { at: Instant; old: number }[] = [];
  for (const run of [...runs].sort((a, b) => a.first - b.first)) {
    current.set(`${run.lookout}/${run.key}`, run);
    const heard = [...current.values()].filter((one) => !one.silent);
    const share = (one: LookRun): number => (one.verdict === 'old' ? 1 : one.verdict === 'mixed' ? 0.5 : 0);
    const old = heard.length === 0 ? 0 : heard.reduce((sum, one) => sum + share(one), 0) / heard.length;
    if (points.at(-1)?.at === run.first) points[points.length - 1] = { at: run.first, old };
    else points.push({ at: run.first, old });
  }
  return points;
}
