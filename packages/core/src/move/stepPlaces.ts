import { PlaceAct } from '../hosts/whereToClick';
import { SheetKind } from '../hosts/sheetTicks';

/** At which place of a leg something is done: the DNS host that is live, the one where the plan is typed, or the registrar. */
export type StepPlace = 'live DNS' | 'planned DNS' | 'registrar';

/** Where a person does a step, and from which sheet. */
export interface PlaceOfStep {
  readonly place: StepPlace;
  readonly act: PlaceAct;
  readonly sheet?: SheetKind;
}

const PLACES: Readonly<Record<string, readonly PlaceOfStep[]>> = {
  lower: [{ place: 'live DNS', act: 'records', sheet: 'lower' }],
  lowered: [{ place: 'live DNS', act: 'records', sheet: 'lower' }],
  early: [{ place: 'live DNS', act: 'records' }],
  turn: [{ place: 'live DNS', act: 'records' }],
  turned: [{ place: 'live DNS', act: 'records' }],
  push: [{ place: 'planned DNS', act: 'records', sheet: 'records' }],
  served: [{ place: 'planned DNS', act: 'records', sheet: 'records' }],
  change: [{ place: 'planned DNS', act: 'records', sheet: 'records' }],
  changed: [{ place: 'planned DNS', act: 'records', sheet: 'records' }],
  raise: [{ place: 'planned DNS', act: 'records', sheet: 'raise' }],
  'ds-gone': [{ place: 'registrar', act: 'ds' }],
  // The zone is signed before the registry is told of it.
  'ds-again': [
    { place: 'planned DNS', act: 'sign' },
    { place: 'registrar', act: 'ds' },
  ],
  switch: [{ place: 'registrar', act: 'nameservers', sheet: 'registrar' }],
};

/** Where a person does the step with this id, in order; nothing where it is done here, or only seen. */
export function placesOfStep(id: string): readonly PlaceOfStep[] {
  return PLACES[id] ?? [];
}
