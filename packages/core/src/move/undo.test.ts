import { decision } from '../testing/moving';
import { Decision, standing } from './said';
import { redoable, undoable } from './undo';

/** Undo and redo as a person sees them: two piles, and nothing of how decisions are kept. */
class Piles {
  readonly done: string[] = [];
  readonly undone: string[] = [];
}

const taken = (one: Decision): Decision => decision(one.kind, one.subject, null, 0, one.id);

describe('undo', () => {
  it('goes back and forth like two piles, whatever is pressed', () => {
    let seed = 7;
    const next = (below: number): number => (seed = (seed * 48_271) % 2_147_483_647) % below;
    for (let world = 0; world < 200; world++) {
      const piles = new Piles();
      const rows: Decision[] = [];
      for (let turn = 0; turn < 30; turn++) {
        const press = next(4);
        if (press < 2) {
          rows.push(decision('ruling', `${world} ${turn}`));
          piles.done.push(`${world} ${turn}`);
          piles.undone.length = 0;
        } else {
          const one = press === 2 ? undoable(rows) : redoable(rows);
          const [from, to] = press === 2 ? [piles.done, piles.undone] : [piles.undone, piles.done];
          expect(one?.subject).toBe(from.at(-1));
          if (one) {
            rows.push(taken(one));
            to.push(from.pop()!);
          }
        }
        expect(standing(rows).map((row) => row.subject)).toEqual(piles.done);
      }
    }
  });

  it('leaves what went out and what hosts were chosen', () => {
    const ruling = decision('ruling', 'row');
    expect(undoable([ruling, decision('push'), decision('approve'), decision('hosts')])).toBe(ruling);
    expect(undoable([decision('push'), decision('submitted')])).toBeUndefined();
  });

  it('brings no ruling back that went with the hosts chosen before', () => {
    const ruling = decision('ruling', 'row');
    const gone = taken(ruling);
    expect(redoable([ruling, gone])).toBe(gone);
    expect(redoable([ruling, gone, decision('hosts')])).toBeUndefined();
  });
});
