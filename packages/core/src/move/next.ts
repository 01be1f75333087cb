import { Instant } from '../timetable/instant';
import { Leg } from './leg';
import { Chapter } from './rules/rule';
import { gateOf } from './gate';
import { Step, stepsOf } from './steps';
import { TASK } from './tasks';

/** What comes next in a leg, and who does it. */
export interface Next {
  readonly step: string;
  readonly text: string;
  readonly chapter: Chapter;
  readonly who: 'you' | 'wanderon';
  readonly dueAt: Instant | null;
  readonly failed: boolean;
  /** It can be done with one word, without looking any further: we hold the key, the gate is open. */
  readonly atOnce: boolean;
}

/** What a step that only an observation ends is waiting for. */
const WAITS: Readonly<Record<string, string>> = {
  switch: 'Waiting for the parent to publish the new nameservers',
  changed: 'Waiting until every nameserver gives the new values',
};

/** A task at the web host that has to be done before the cutover. */
function isAsked({ rule }: Step): boolean {
  return rule.id.startsWith(TASK) && rule.chapter !== 'watch';
}

/** What is stopped comes first, then the switch where it is time for it, then what a person decides, then what is under way. */
export function nextOf(leg: Leg): Next | null {
  const steps = stepsOf(leg);
  const as = ({ rule }: Step, more: Partial<Next> & Pick<Next, 'who'>): Next => ({
    step: rule.id,
    text: rule.title,
    chapter: rule.chapter,
    dueAt: null,
    failed: false,
    atOnce: true,
    ...more,
  });
  const stopped = steps.find((step) => step.standing.state === 'stopped');
  if (stopped) return as(stopped, { who: 'you', failed: true, text: stopped.standing.text ?? stopped.rule.title });
  const ready = steps.filter((step) => step.standing.state === 'ready');
  const change = ready.find((step) => step.rule.id === 'switch' || step.rule.id === 'change');
  const asked = ready.find(isAsked);
  if (change && asked && !gateOf(leg).open) return as(asked, { who: 'you' });
  if (change) {
    const gate = gateOf(leg);
    const opens = gate.open ? leg.now : (gate.opensAt ?? leg.times.earliestSwitch.at);
    return as(change, { who: 'you', dueAt: Math.max(opens, leg.said.plannedSwitch ?? 0), atOnce: gate.open });
  }
  const doing = steps.find((step) => step.standing.state === 'doing' || step.standing.state === 'due');
  // TTLs run out meanwhile: what the web host asks for beforehand comes after what Wanderon waits for.
  const yours = ready.find((step) => !isAsked(step)) ?? ready[0];
  // What is typed into a panel is no matter of one word here.
  if (yours) return as(yours, { who: 'you', atOnce: yours.rule.id !== 'lower' || leg.plan.oldHost?.keyed === true });
  if (!doing) return null;
  const waits = WAITS[doing.rule.id] ?? doing.rule.title;
  return as(doing, { who: 'wanderon', text: waits, dueAt: doing.standing.dueAt });
}
