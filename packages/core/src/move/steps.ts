/** What one leg goes through. A step is taken up as soon as all in `after` are done. */
export const STEP_KINDS = ['survey', 'choose', 'push', 'served', 'lower', 'lowered', 'switch', 'turn', 'settle', 'raise', 'close'] as const;
export type StepKind = (typeof STEP_KINDS)[number];

export type StepState = 'waiting' | 'ready' | 'due' | 'doing' | 'done' | 'failed';

export type Chapter = 'survey' | 'rebuild' | 'timetable' | 'switch' | 'watch';

export interface StepRule {
  readonly after: readonly StepKind[];
  /** `person`: done by somebody. `decided`: done by Wanderon once a person decided it. `seen`: an observation. */
  readonly by: 'person' | 'decided' | 'seen';
  readonly chapter: Chapter;
  readonly title: string;
}

/** The steps of a delegation leg, in the order in which they are shown. */
export const STEPS: Readonly<Record<StepKind, StepRule>> = {
  survey: { after: [], by: 'seen', chapter: 'survey', title: 'Take the survey' },
  choose: { after: ['survey'], by: 'person', chapter: 'rebuild', title: 'Choose where it goes' },
  push: { after: ['choose'], by: 'decided', chapter: 'rebuild', title: 'Push the new zone' },
  served: { after: ['push'], by: 'seen', chapter: 'rebuild', title: 'Read the new zone back' },
  lower: { after: ['choose'], by: 'decided', chapter: 'timetable', title: 'Lower the TTLs at the old host' },
  lowered: { after: ['lower'], by: 'seen', chapter: 'timetable', title: 'See the TTLs lowered' },
  switch: { after: ['served', 'lowered'], by: 'person', chapter: 'switch', title: 'Change the nameservers' },
  turn: { after: ['switch'], by: 'decided', chapter: 'switch', title: 'Turn the old zone' },
  settle: { after: ['turn'], by: 'seen', chapter: 'watch', title: 'Watch until settled' },
  raise: { after: ['settle'], by: 'decided', chapter: 'watch', title: 'Raise the TTLs at the new host' },
  close: { after: ['raise'], by: 'person', chapter: 'watch', title: 'Close the move' },
};

export interface StepStatus {
  readonly kind: StepKind;
  readonly state: StepState;
}

/** Steps that may be taken up now: not done, and everything before them done. */
export function openSteps(steps: readonly StepStatus[]): StepKind[] {
  const done = new Set(steps.filter((step) => step.state === 'done').map((step) => step.kind));
  return STEP_KINDS.filter((kind) => !done.has(kind) && STEPS[kind].after.every((before) => done.has(before)));
}

export function isDone(steps: readonly StepStatus[], kind: StepKind): boolean {
  return steps.some((step) => step.kind === kind && step.state === 'done');
}
