/** What a person said of a hint. */
export const HINT_ANSWERS = ['not ours', 'retired'] as const;
export type HintAnswer = (typeof HINT_ANSWERS)[number];
