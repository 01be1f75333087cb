import { LookKind } from './looks';

/** Which look tells a step that waits for the world to change. */
const LOOKS: Readonly<Record<string, LookKind>> = {
  early: 'old',
  'early-seen': 'old',
  served: 'new',
  lower: 'old',
  lowered: 'old',
  'ds-gone': 'parent',
  switch: 'parent',
  changed: 'old',
  turn: 'old',
  turned: 'old',
  settle: 'lookouts',
  'front-on': 'new',
  'ds-again': 'parent',
};

/** Seconds between two looks of a kind that people ask for: servers are others' as well. */
export const LOOK_PACE_SECONDS = 10;

/** The look that tells how a step stands; undefined where nothing of it is seen by looking. */
export function lookOfStep(id: string): LookKind | undefined {
  return LOOKS[id];
}
