import { gateOf } from './gate';
import { Leg } from './leg';
import { passes } from './lines/line';
import { isDone, stepsOf } from './steps';

/** A sentence for the trail; `about` names the step that it says is done. */
export interface News {
  readonly kind: 'step' | 'switch';
  readonly text: string;
  readonly about?: string;
}

/** What an observation has made true, or no longer true. Acts of people and of Wanderon tell of themselves. */
export function newsOf(before: Leg, after: Leg): News[] {
  const observed = stepsOf(after).filter(({ rule }) => rule.by === 'seen' || rule.id === 'switch' || rule.id === 'ds-gone');
  const news = observed.flatMap(({ rule, standing }): News[] => {
    const [was, is] = [isDone(before, rule.id), isDone(after, rule.id)];
    if (is && !was) return [{ kind: 'step', text: `${rule.title}: done.`, about: rule.title }];
    if (!is && was && rule.id !== 'survey') return [{ kind: 'step', text: `${rule.title}: no longer so. ${standing.text ?? ''}`.trim() }];
    return [];
  });
  const switched = (leg: Leg): boolean => leg.plan.chosen && leg.times.ts !== undefined;
  if (!switched(before) && switched(after) && after.said.submittedAt === undefined) news.push({ kind: 'switch', text: unannounced(before) });
  return news;
}

/** Nobody told us of the change: what was not yet true when it was made. */
function unannounced(before: Leg): string {
  const lacking = gateOf(before).lines.filter((line) => !passes(line));
  const what = before.plan.kind === 'repoint' ? 'A nameserver gave new values' : 'The parent was seen to publish the new nameservers';
  return lacking.length === 0 ? `${what}.` : `${what} before everything was ready: ${lacking.map((line) => line.text).join(' ')}`;
}
