import { RowDecision } from '@wanderon/core';
import fc from 'fast-check';
import { OwnActs, RowChange } from './ownActs';
import { DecidedRow } from './rowViews';

const ROWS = ['www', 'mail', 'shop'];
const VALUES = ['carry', 'drop'] as const;
type Value = (typeof VALUES)[number];

const rowOf = (ruling: Value): NonNullable<RowDecision> => ({ owner: 'a.example.', type: 'A', ruling, found: undefined, planned: undefined, reason: '' });

/** A server that keeps who decided what of which rows; the last word that stands counts. */
class Decisions {
  private readonly all: { by: string; rows: ReadonlyMap<string, Value>; stands: boolean }[] = [];

  add(by: string, rows: ReadonlyMap<string, Value>): void {
    this.all.push({ by, rows, stands: true });
  }

  turn(by: string, from: boolean): boolean {
    const own = this.all.filter((one) => one.by === by);
    // What was undone last is done again first.
    const one = from ? own.findLast(({ stands }) => stands) : own.slice(own.findLastIndex(({ stands }) => stands) + 1)[0];
    if (one) one.stands = !from;
    return one !== undefined;
  }

  row(id: string): { ruling: Value; decidedBy: string | null } {
    const last = this.all.findLast((one) => one.stands && one.rows.has(id));
    return { ruling: last?.rows.get(id) ?? 'carry', decidedBy: last?.by ?? null };
  }

  /** Undone before something new is not done again. */
  dropUndone(by: string): void {
    for (let index = this.all.length - 1; index >= 0; index--) if (this.all[index]!.by === by && !this.all[index]!.stands) this.all.splice(index, 1);
  }
}

const act = fc.oneof(
  fc.record({ kind: fc.constantFrom('mine', 'elsewhere', 'theirs'), rows: fc.subarray(ROWS, { minLength: 1 }), value: fc.constantFrom(...VALUES) }),
  fc.record({ kind: fc.constantFrom('undo', 'redo', 'undo', 'undo elsewhere') }),
);

describe('what a page did itself', () => {
  it('foretells an undo as the server answers it, or nothing, whoever else decides meanwhile', () => {
    let foretold = 0;
    fc.assert(
      fc.property(fc.array(act, { maxLength: 24 }), (acts) => {
        const server = new Decisions();
        const page = new OwnActs('me');
        const seen = (id: string) => {
          const { ruling, decidedBy } = server.row(id);
          return { ...rowOf(ruling), decidedBy };
        };
        for (const one of acts) {
          if ('rows' in one) {
            const by = one.kind === 'theirs' ? 'them' : 'me';
            const changes = one.rows.map((id): RowChange => {
              const { decidedBy, ...row } = seen(id);
              return { before: { id, row, by: decidedBy }, after: { id, row: rowOf(one.value), by: 'me' } };
            });
            server.dropUndone(by);
            server.add(by, new Map(one.rows.map((id) => [id, one.value])));
            if (one.kind === 'mine') page.did(changes);
            if (one.kind === 'elsewhere') page.forget();
          } else if (one.kind === 'undo elsewhere') {
            page.forget();
            server.turn('me', true);
          } else {
            const told: readonly DecidedRow[] | undefined = one.kind === 'undo' ? page.undo(seen) : page.redo(seen);
            const done = server.turn('me', one.kind === 'undo');
            if (!done) expect(told).toBeUndefined();
            foretold += told?.length ?? 0;
            for (const { id, row, by } of told ?? []) expect({ ruling: row!.ruling, decidedBy: by }).toEqual(server.row(id));
          }
        }
      }),
      { numRuns: 5000 },
    );
    expect(foretold).toBeGreaterThan(1000);
  });

  it('knows nothing of what was decided before the page was opened', () => {
    expect(new OwnActs('me').undo(() => null)).toBeUndefined();
    expect(new OwnActs('me').redo(() => null)).toBeUndefined();
  });
});
