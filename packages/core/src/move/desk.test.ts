import { compareOnDesk, deskPlaceOf } from './desk';

describe('the Desk', () => {
  const next = (who: 'you' | 'wanderon', dueAt: number | null, failed = false) => ({ who, dueAt, failed });

  it('has what is stopped first, then what a person has to do in the order of time, then what Wanderon does', () => {
    const all = [null, next('wanderon', 5), next('you', 100), next('you', null), next('wanderon', null), next('you', 7), next('you', 50, true)];
    const sorted = [...all].sort((a, b) => compareOnDesk(deskPlaceOf(a), deskPlaceOf(b)));
    expect(sorted).toEqual([next('you', 50, true), next('you', null), next('you', 7), next('you', 100), next('wanderon', null), next('wanderon', 5), null]);
  });

  it('takes a moment without a bound for none', () => {
    expect(deskPlaceOf(next('you', Infinity))).toEqual({ group: 1, due: 0 });
  });
});
