import { decision } from '../testing/moving';
import { DECISION_KINDS, Decision, DecisionKind, standing } from './said';
import { titleOf } from './titles';
import { decisionWords, redoable, undoable } from './undo';

/** Undo and redo as a person sees them: two piles, and nothing of how decisions are kept. */
class Piles {
  readonly done: string[] = [];
  readonly undone: string[] = [];
}

const ME = 'somebody';
const taken = (one: Decision, by = ME): Decision => ({ ...decision(one.kind, one.subject, null, 0, one.id), person: by });

describe('undo', () => {
  it('goes back and forth like two piles, whatever is pressed, for each of several people', () => {
    let seed = 7;
    const next = (below: number): number => (seed = (seed * 48_271) % 2_147_483_647) % below;
    for (let world = 0; world < 300; world++) {
      const people = ['one', 'two', 'three'].slice(0, 1 + (world % 3)).map((name) => ({ name, piles: new Piles() }));
      const rows: Decision[] = [];
      for (let turn = 0; turn < 40; turn++) {
        const { name, piles } = people[next(people.length)]!;
        const press = next(4);
        if (press < 2) {
          rows.push({ ...decision('ruling', `${world} ${turn}`), person: name });
          piles.done.push(`${world} ${turn}`);
          piles.undone.length = 0;
        } else {
          const one = press === 2 ? undoable(rows, name) : redoable(rows, name);
          const [from, to] = press === 2 ? [piles.done, piles.undone] : [piles.undone, piles.done];
          expect(one?.subject).toBe(from.at(-1));
          if (one) {
            rows.push(taken(one, name));
            to.push(from.pop()!);
          }
        }
        // What stands is what all of them have done, in the order in which it was done first.
        const all = people.flatMap((person) => person.piles.done).sort((a, b) => Number(a.split(' ')[1]) - Number(b.split(' ')[1]));
        expect(standing(rows).map((row) => row.subject)).toEqual(all);
      }
    }
  });

  it('leaves what went out and what hosts were chosen', () => {
    const ruling = decision('ruling', 'row');
    expect(undoable([ruling, decision('push'), decision('approve'), decision('hosts')], ME)).toBe(ruling);
    expect(undoable([decision('push'), decision('submitted')], ME)).toBeUndefined();
  });

  it('tells of each kind of decision in words, and never by a kind or an id', () => {
    const subjects: Partial<Record<DecisionKind, string>> = {
      done: 'task:7f3a-21',
      leave: 'turn',
      waive: 'run out',
      aside: '192.0.2.1',
      hint: 'www.zone.test.\nit exists',
      purpose: 'www.zone.test./A',
    };
    const values: Partial<Record<DecisionKind, unknown>> = { rulings: { rows: [] } };
    const words = DECISION_KINDS.map((kind) => decisionWords({ ...decision(kind, subjects[kind] ?? ''), value: values[kind] ?? null }, titleOf));
    expect(new Set(words).size).toBe(DECISION_KINDS.length);
    for (const text of words) expect(text).toMatch(/^[A-Z0-9“]/);
    expect(words.join()).not.toMatch(/task:|run out,|undefined|zone\.test\./);
    expect(words).toContain('A task at the new host: done');
  });

  it('brings no ruling back that went with the hosts chosen before', () => {
    const ruling = decision('ruling', 'row');
    const gone = taken(ruling);
    expect(redoable([ruling, gone], ME)).toBe(gone);
    expect(redoable([ruling, gone, decision('hosts')], ME)).toBeUndefined();
  });
});
