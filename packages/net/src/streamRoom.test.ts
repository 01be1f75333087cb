import fc from 'fast-check';
import { StreamRoom } from './streamRoom';

describe('room for streams', () => {
  it('is made by whoever took most, and given back by whoever leaves', () => {
    const out: string[] = [];
    const room = new StreamRoom(100);
    const [small, great, third] = ['small', 'great', 'third'].map((name) => room.enter(() => out.push(name)));
    small!.take(10);
    great!.take(60);
    third!.take(30);
    expect(out).toEqual([]);
    small!.take(1);
    expect([out, great!.isOut, small!.isOut]).toEqual([['great'], true, false]);
    // What it sends before its connection is gone counts for nothing.
    great!.take(1000);
    third!.take(59);
    expect(out).toEqual(['great']);
    third!.leave();
    small!.take(89);
    expect(out).toEqual(['great']);
    small!.take(1);
    expect(out).toEqual(['great', 'small']);
  });

  it('is never exceeded, and nobody goes who took less than another', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(9), fc.nat(60), fc.boolean()), { maxLength: 200 }), (acts) => {
        const room = new StreamRoom(100);
        const took = new Map<number, number>();
        const guests = Array.from({ length: 10 }, (_, index) =>
          room.enter(() => {
            expect(took.get(index)).toBe(Math.max(...took.values()));
            took.delete(index);
          }),
        );
        for (const [index, octets, leaves] of acts) {
          const guest = guests[index]!;
          if (guest.isOut) continue;
          took.set(index, (took.get(index) ?? 0) + octets);
          guest.take(octets);
          expect([...took.values()].reduce((a, b) => a + b, 0)).toBeLessThanOrEqual(100);
          if (leaves && took.delete(index)) {
            guest.leave();
            guests[index] = room.enter(() => {
              expect(took.get(index)).toBe(Math.max(...took.values()));
              took.delete(index);
            });
          }
        }
      }),
    );
  });
});
