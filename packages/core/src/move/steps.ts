import { uncapital } from '../survey/words';
import { Leg } from './leg';
import * as modules from './rules';
import { unusedRules } from './former';
import { CHAPTERS, StepRule, StepStanding, stands } from './rules/rule';
import { ownTaskRules } from './ownTasks';
import { taskRules } from './tasks';

/** Every rule, in the order in which its steps are shown; a rule is what its file exports with an id. */
export const STEP_RULES: readonly StepRule[] = Object.values(modules).filter((one): one is StepRule => typeof one === 'object' && 'id' in one);

export interface Step {
  readonly rule: StepRule;
  readonly standing: StepStanding;
}

/** The steps of a leg as its plan has them, each with where it stands. */
export function stepsOf(leg: Leg): readonly Step[] {
  return leg.once('steps', () => {
    const rules = withTasks(
      STEP_RULES.filter((rule) => rule.applies(leg.plan, leg)).map((rule) => {
        const title = rule.titleIn?.(leg.plan);
        return title === undefined ? rule : { ...rule, title };
      }),
      [...taskRules(leg.plan), ...ownTaskRules(leg), ...unusedRules(leg.plan)],
    );
    const made = new Map<string, Step>();
    const make = (rule: StepRule): Step => {
      const known = made.get(rule.id);
      if (known) return known;
      const skipped = rule.skips?.(leg.plan) ?? [];
      const before = rules.filter((one) => rule.after.includes(one.id) && !skipped.includes(one.id)).map(make);
      const step = { rule, standing: standingOf(leg, rule, before) };
      made.set(rule.id, step);
      return step;
    };
    return rules.map(make);
  });
}

/** With which a leg is over. */
const ENDS: ReadonlySet<string> = new Set(['next-leg', 'close']);

/** What the host asks for comes after the rules' own steps of its chapter. */
function withTasks(rules: readonly StepRule[], tasks: readonly StepRule[]): readonly StepRule[] {
  if (tasks.length === 0) return rules;
  const rank = (rule: StepRule): number => (ENDS.has(rule.id) ? CHAPTERS.length : CHAPTERS.indexOf(rule.chapter));
  // The sort is stable.
  return [...rules, ...tasks].sort((a, b) => rank(a) - rank(b));
}

/** A step waits for those before it, unless what is so already counts by itself. Before hosts are chosen nothing is: there is no new set to be published. */
function standingOf(leg: Leg, rule: StepRule, before: readonly Step[]): StepStanding {
  const open = before.filter(({ standing }) => standing.state !== 'done' && standing.state !== 'left');
  if (open.length === 0) return rule.standing(leg);
  const own = leg.plan.surveyedAt === undefined || !leg.plan.chosen ? undefined : rule.standing(leg);
  const isSo =
    own?.state === 'left' ||
    (own?.state === 'done' && rule.counts !== 'in turn') ||
    ((own?.state === 'doing' || own?.state === 'stopped') && rule.counts === 'seen');
  if (own && isSo) return own;
  return stands('waiting', {
    text: `After: ${open.map((one) => uncapital(one.rule.title)).join(', ')}.`,
    decision: own?.decision,
    dueAt: own?.dueAt ?? null,
  });
}

export function stepOf(leg: Leg, id: string): Step | undefined {
  return stepsOf(leg).find((step) => step.rule.id === id);
}

/** Done, or left out by a person's word. */
export function isDone(leg: Leg, id: string): boolean {
  const state = stepOf(leg, id)?.standing.state;
  return state === 'done' || state === 'left';
}

/** Throws a RangeError where rules go in circles, or name steps that there are not. */
export function checkRules(rules: readonly StepRule[] = STEP_RULES): void {
  const ids = new Map(rules.map((rule) => [rule.id, rule]));
  if (ids.size < rules.length) throw new RangeError('two rules have one id');
  const visit = (rule: StepRule, path: readonly string[]): void => {
    if (path.includes(rule.id)) throw new RangeError(`steps go in a circle: ${[...path, rule.id].join(', ')}`);
    for (const id of rule.after) {
      const before = ids.get(id);
      if (!before) throw new RangeError(`${rule.id} comes after ${id}, which there is not`);
      visit(before, [...path, rule.id]);
    }
  };
  for (const rule of rules) visit(rule, []);
}
