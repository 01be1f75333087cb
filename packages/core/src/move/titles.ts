import { OWN_TASK } from './ownTasks';
import { unusedStep } from './former';
import { Leg } from './leg';
import { stepOf, STEP_RULES } from './steps';
import { CLEAR, TASK } from './tasks';

/** What each line of the gate is about, where its text of the moment is not at hand. */
const LINES: Readonly<Record<string, string>> = {
  named: 'the nameservers that the new host gave',
  served: 'the new zone at its servers',
  changes: 'what changes',
  gap: 'the gap between the two accounts',
  delegated: 'where the domain is delegated',
  unread: 'what the survey could not read',
  remarks: 'remarks on the plan',
  asked: 'what the new host asks for',
  'own tasks': 'what you noted to do before',
  drift: 'the old zone since the survey',
  ds: 'the DS at the registrar',
  lowered: 'the TTLs at the old nameservers',
  'run out': 'answers with an old TTL',
  registration: 'the registration',
  website: 'the website at its new place',
  kept: 'the old zone once the domain leaves it',
};

/** Steps that follow from what a host asks for, or from a former way, by the beginning of their ids. */
const KINDS: readonly (readonly [string, string])[] = [
  [TASK, 'A task at the new host'],
  [OWN_TASK, 'A task that somebody noted'],
  [CLEAR, 'A record that was there for a time'],
  [unusedStep(''), 'The zone at a former host'],
];

/** The title of a step, or what a line of the gate is about, by its id, without the leg at hand. */
export function titleOf(id: string): string | undefined {
  return STEP_RULES.find((rule) => rule.id === id)?.title ?? LINES[id] ?? KINDS.find(([prefix]) => id.startsWith(prefix))?.[1];
}

/** The same with the leg's own words. */
export function titleIn(leg: Leg): (id: string) => string | undefined {
  return (id) => stepOf(leg, id)?.rule.title ?? titleOf(id);
}
