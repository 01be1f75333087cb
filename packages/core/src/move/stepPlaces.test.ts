import { ACTS_OF_ROLE } from '../hosts/whereToClick';
import { LOOK_KINDS } from './looks';
import { lookOfStep } from './stepLooks';
import { placesOfStep } from './stepPlaces';
import { STEP_RULES } from './steps';

describe('where a person does each step', () => {
  const places = STEP_RULES.flatMap((rule) => placesOfStep(rule.id));

  it('is known of steps that there are, at places that do such things', () => {
    expect(places.length).toBeGreaterThan(10);
    for (const { place, act } of places)
      expect([place, ACTS_OF_ROLE[place === 'registrar' ? 'registrar' : 'dns'] as readonly string[]]).toEqual([place, expect.arrayContaining([act])]);
  });

  it('leads to every sheet', () => expect(new Set(places.flatMap(({ sheet }) => sheet ?? []))).toEqual(new Set(['records', 'lower', 'raise', 'registrar'])));

  it('is looked at by kinds of looks that are made', () => {
    const looks = STEP_RULES.flatMap((rule) => lookOfStep(rule.id) ?? []);
    expect(looks.length).toBeGreaterThan(8);
    expect(LOOK_KINDS).toEqual(expect.arrayContaining(looks));
  });
});
