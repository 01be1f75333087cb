import { decision, legOf } from '../testing/moving';
import { Decision } from './said';
import { gateOf } from './gate';
import { passes } from './lines/line';
import { stepOf } from './steps';
import { OWN_TASK } from './ownTasks';

const task = (when: 'before' | 'after', title = 'Ask the shop'): Decision => decision('own task', 't1', { title, when, note: 'By phone.' });
const leg = (...decisions: Decision[]) => legOf({ now: 1000, decisions: [decision('hosts'), ...decisions] });
const lineOf = (of: ReturnType<typeof leg>) => gateOf(of).lines.find((one) => one.key === 'own tasks');

describe('a task that somebody noted', () => {
  it('is a step that is done by a word, and the gate waits for it where it comes before', () => {
    const open = leg(task('before'));
    expect(stepOf(open, `${OWN_TASK}t1`)).toMatchObject({
      rule: { chapter: 'rebuild', title: 'Ask the shop' },
      standing: { state: 'ready', text: 'By phone.' },
    });
    expect(lineOf(open)).toMatchObject({ holds: false, about: ['Ask the shop'] });
    const done = leg(task('before'), decision('done', `${OWN_TASK}t1`));
    expect(lineOf(done)).toMatchObject({ holds: true });
    expect(passes(lineOf(leg(task('before'), decision('leave', `${OWN_TASK}t1`)))!)).toBe(true);
  });

  it('that comes after waits for the switch, and is in the way of nothing', () => {
    const later = leg(task('after'));
    expect(stepOf(later, `${OWN_TASK}t1`)).toMatchObject({ rule: { chapter: 'watch' }, standing: { state: 'waiting' } });
    expect(lineOf(later)).toBeUndefined();
  });

  it('is gone once it is taken away', () => {
    const gone = leg(task('before'), { ...decision('own task', 't1', null), id: 99 });
    expect([stepOf(gone, `${OWN_TASK}t1`), lineOf(gone)]).toEqual([undefined, undefined]);
  });
});
