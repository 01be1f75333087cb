import fc from 'fast-check';
import { LedgerRow, sameRow } from '../rebuild/ledgerRow';
import { decidedRows } from '../rebuild/rowWords';
import { Ruling } from '../rebuild/ruling';
import { planAgain } from './planAgain';

const set = (name: string, value: number) => ({ owner: `${name}.kelp.example.`, type: 'A', ttl: 300, data: [`192.0.2.${value}`] });
const found = (name: string, to?: number): Ruling => ({
  ...{ owner: `${name}.kelp.example.`, type: 'A', found: set(name, 0), reason: 'proposed' },
  ...(to === undefined ? { ruling: 'carry', planned: set(name, 0) } : { ruling: 'repoint', planned: set(name, to) }),
});
const fresh = (name: string, to: number): Ruling => ({
  ...{ owner: `${name}.kelp.example.`, type: 'A', ruling: 'new', found: undefined, planned: set(name, to), reason: 'proposed' },
});
const asLedger = (rows: readonly Ruling[]): LedgerRow[] => rows.map((row, index) => ({ ...row, id: `id-${index}`, decidedBy: null }));
const decision = (id: string, row: Ruling | null) => ({ kind: 'ruling', subject: id, value: { row }, person: 'somebody' });

/** The plan after it is proposed anew, as the server keeps it: proposals, the decisions that there were, and one for what is overruled. */
function after(before: readonly LedgerRow[], decisions: readonly ReturnType<typeof decision>[], proposed: readonly Ruling[]): LedgerRow[] {
  const again = planAgain(before, decidedRows(before, decisions), proposed);
  const rows = again.proposed.map((row, index) => ({ ...row, id: row.id ?? `new-${index}`, decidedBy: null }));
  return decidedRows(rows, [...decisions, ...again.overruled.map(({ id, row }) => decision(id, row ?? null))]);
}

const toldOf = (rows: readonly Ruling[]): string[] =>
  rows.map((row) => `${row.owner.split('.')[0]} ${row.ruling} ${row.planned?.data.join() ?? ''}`.trim()).sort();

describe('a plan that is proposed anew', () => {
  const before = asLedger([found('shop'), found('blog', 9), fresh('token', 1)]);

  it('adds what is given since, and what a person decided of other rows stands', () => {
    const decided = [decision('id-0', { ...found('shop'), ruling: 'drop', planned: undefined }), decision('by hand', fresh('hand', 5)), decision('id-2', null)];
    expect(toldOf(after(before, decided, [found('shop'), found('blog', 9), fresh('token', 1), fresh('more', 7)]))).toEqual([
      'blog repoint 192.0.2.9',
      'hand new 192.0.2.5',
      'more new 192.0.2.7',
      'shop drop',
    ]);
  });

  it('takes what is proposed now where something else was proposed when a person decided', () => {
    const decided = [decision('id-1', found('blog', 44)), decision('id-2', null), decision('by hand', fresh('hand', 5))];
    const proposed = [found('shop'), found('blog', 10), fresh('token', 2), fresh('hand', 6)];
    const again = planAgain(before, decidedRows(before, decided), proposed);
    expect(again.changed.map(({ owner }) => owner.split('.')[0])).toEqual(['blog', 'token', 'hand']);
    expect(again.overruled.map(({ id }) => id)).toEqual(['id-1', 'id-2', 'by hand']);
    expect(toldOf(after(before, decided, proposed))).toEqual(['blog repoint 192.0.2.10', 'hand new 192.0.2.6', 'shop carry 192.0.2.0', 'token new 192.0.2.2']);
  });

  it('leaves out what is given no more, whoever changed it meanwhile', () => {
    expect(toldOf(after(before, [], [found('shop'), found('blog', 9)]))).toEqual(['blog repoint 192.0.2.9', 'shop carry 192.0.2.0']);
    expect(toldOf(after(before, [decision('id-2', fresh('token', 8))], [found('shop'), found('blog', 9)]))).toHaveLength(2);
  });

  it('says nothing is otherwise where the same is proposed', () => {
    const decided = [decision('id-1', found('blog', 44))];
    expect(planAgain(before, decidedRows(before, decided), before)).toMatchObject({ changed: [], overruled: [] });
  });

  it('gives each row what is proposed where that changed, and else what it was: any plan, any decisions', () => {
    const names = ['a', 'b', 'c', 'd'];
    const rows = (): fc.Arbitrary<Ruling[]> =>
      fc
        .tuple(
          ...names.map((name) =>
            fc.option(
              fc.oneof(
                fc.constant(found(name)),
                fc.integer({ min: 1, max: 3 }).map((to) => found(name, to)),
              ),
            ),
          ),
        )
        .map((all) => all.filter((row) => row !== null));
    const decisions = fc.array(fc.tuple(fc.constantFrom(...names), fc.integer({ min: 0, max: 3 })), { maxLength: 4 });
    fc.assert(
      fc.property(rows(), decisions, rows(), (first, said, second) => {
        const proposed = asLedger(first);
        const decided = said.map(([name, to]) =>
          decision(proposed.find(({ owner }) => owner === set(name, 0).owner)?.id ?? `hand ${name}`, to === 0 ? null : found(name, to)),
        );
        const stood = decidedRows(proposed, decided);
        const result = after(proposed, decided, second);
        for (const name of names) {
          const at = <R extends Ruling>(all: readonly R[]): R | undefined => all.find(({ owner }) => owner === set(name, 0).owner);
          const [was, now, then] = [at(first), at(stood), at(second)];
          const isAlike = was && then ? sameRow(was, then) : was === then;
          const wanted = isAlike ? now : then;
          const got = at(result);
          expect(wanted && got ? sameRow(wanted, got) : wanted === got).toBe(true);
        }
      }),
    );
  });
});
