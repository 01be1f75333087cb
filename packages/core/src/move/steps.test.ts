import fc from 'fast-check';
import { inScope, scopesMeet } from './scope';
import { STEP_KINDS, STEPS, StepKind, openSteps } from './steps';

const statuses = (done: readonly StepKind[]) => STEP_KINDS.map((kind) => ({ kind, state: done.includes(kind) ? ('done' as const) : ('waiting' as const) }));

describe('steps', () => {
  it('open what everything before them is done for', () => {
    expect(openSteps(statuses([]))).toEqual(['survey']);
    expect(openSteps(statuses(['survey', 'choose']))).toEqual(['push', 'lower']);
    expect(openSteps(statuses(['survey', 'choose', 'push', 'served', 'lower']))).toEqual(['lowered']);
    expect(openSteps(statuses(STEP_KINDS))).toEqual([]);
  });

  it('never leave a move stuck: in whatever order they are done, all get done', () => {
    fc.assert(
      fc.property(fc.infiniteStream(fc.nat(10)), (picks) => {
        const done: StepKind[] = [];
        for (const pick of picks) {
          const open = openSteps(statuses(done));
          if (open.length === 0) break;
          const next = open[pick % open.length]!;
          for (const before of STEPS[next].after) expect(done).toContain(before);
          done.push(next);
        }
        expect(done).toHaveLength(STEP_KINDS.length);
      }),
    );
  });
});

describe('scopes', () => {
  const names = (...all: string[]) => ({ kind: 'names', names: all }) as const;
  it('meet where they share a name, or one is the whole domain', () => {
    expect(scopesMeet({ kind: 'whole' }, names('a.example'))).toBe(true);
    expect(scopesMeet(names('a.example', 'b.example'), names('b.example'))).toBe(true);
    expect(scopesMeet(names('a.example'), names('b.example'))).toBe(false);
  });
  it('hold names in any spelling', () =>
    expect([inScope(names('a.example'), 'A.Example.'), inScope(names('a.example'), 'b.a.example.'), inScope({ kind: 'whole' }, 'x.')]).toEqual([
      true,
      false,
      true,
    ]));
});
