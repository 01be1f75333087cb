import { decision } from '../testing/moving';
import { saidBy, standing } from './said';

describe('decisions', () => {
  it('stand until they are taken back, and again when that is', () => {
    const one = decision('ruling', 'row', { row: 1 });
    const two = decision('ruling', 'row', { row: 2 });
    const undo = decision('ruling', 'row', null, 0, two.id);
    const redo = decision('ruling', 'row', null, 0, undo.id);
    const values = (...all: (typeof one)[]): unknown[] => standing(all).map((decided) => decided.value);
    expect(values(one, two)).toEqual([{ row: 1 }, { row: 2 }]);
    expect(values(one, two, undo)).toEqual([{ row: 1 }]);
    expect(values(one, two, undo, redo)).toEqual([{ row: 1 }, { row: 2 }]);
  });

  it('count by the last word on a subject', () => {
    const said = saidBy([
      decision('approve', '', { lowerTo: 60, lowerAt: 5, plannedSwitch: null }),
      decision('approve', '', { lowerTo: 600, lowerAt: null, plannedSwitch: 9 }),
      decision('submitted', '', null, 77),
      decision('aside', '192.0.2.1', null, 3),
      decision('assent', 'a.test./A', { what: 'leave', data: [] }),
      decision('assent', 'a.test./A', { what: 'take', data: ['192.0.2.1'] }),
    ]);
    expect(said).toMatchObject({ lowerTo: 600, lowerAt: null, plannedSwitch: 9, submittedAt: 77 });
    expect(said.assents.get('a.test./A')!.what).toBe('take');
    expect(said.aside.get('192.0.2.1')!.at).toBe(3);
    expect(saidBy([])).toMatchObject({ lowerTo: 300, submittedAt: undefined, surveyAsked: 0 });
  });
});
