import fc from 'fast-check';
import { Name } from '../dns/name';
import { RRset, rrsetFromText, rrsetKey } from '../dns/record';
import { Source, sourceWords } from './evidence';
import { mergeSightings } from './merge';

const set = (owner: string, type: string, ttl: number, ...data: string[]): RRset => rrsetFromText({ owner: `${owner}.reed-bank.example.`, type, ttl, data });
const from = (kind: Source['kind'], server: string, serial?: number): Source => ({ kind, server: `${server}.`, address: '192.0.2.1', serial });

describe('merging', () => {
  it('takes the strongest source for the set, and keeps what every other one says beside it', () => {
    const merged = mergeSightings([
      { source: from('transfer', 'a.test', 5), sets: [set('www', 'A', 60, '192.0.2.1'), set('x', 'TXT', 60, 'one')], complete: true },
      { source: from('transfer', 'b.test', 4), sets: [set('www', 'A', 60, '192.0.2.2'), set('y', 'TXT', 60, 'two')], complete: true },
      { source: from('given', 'you'), sets: [set('x', 'TXT', 300, 'one'), set('z', 'TXT', 60, 'three')], complete: false },
    ]);
    expect(
      merged.map((one) => [one.set.owner.relativeTo(Name.parse('reed-bank.example.')), one.evidence.map(({ seen, agrees }) => (seen ? agrees : 'absent'))]),
    ).toEqual([
      ['www', [true, false]],
      ['x', [true, 'absent', true]],
      ['y', ['absent', true]],
    ]);
    expect(merged[1]!.evidence[2]!.seen!.ttl).toBe(300);
    expect(sourceWords(from('transfer', 'a.test', 5))).toBe('transfer from a.test (192.0.2.1) at serial 5');
  });

  it('is made of what a person gave where nothing is served, and of nothing that they gave else', () => {
    const given = {
      source: { kind: 'given', server: undefined, address: undefined, serial: undefined },
      sets: [set('www', 'A', 60, '192.0.2.1')],
      complete: false,
    } as const;
    const silent = { source: from('transfer', 'a.test'), sets: [], complete: true };
    expect(mergeSightings([silent, given]).map((one) => one.set)).toEqual(given.sets);
    const served = { source: from('answer', 'a.test'), sets: [set('shop', 'A', 60, '192.0.2.2')], complete: false };
    expect(mergeSightings([served, given]).map((one) => one.set)).toEqual(served.sets);
    expect(sourceWords({ kind: 'given', server: 'ns9.test.', address: '192.0.2.9', serial: 4 })).toBe('ns9.test (192.0.2.9), which you named');
  });

  it('gives each set of each serving source once, whatever stands where, and what was given where none serves', () => {
    const owners = fc.uniqueArray(fc.constantFrom('a', 'b', 'c', 'd'));
    fc.assert(
      fc.property(owners, owners, owners, (one, two, given) => {
        const sets = (names: string[]): RRset[] => names.map((name) => set(name, 'A', 60, '192.0.2.1'));
        const merged = mergeSightings([
          { source: from('transfer', 'a.test'), sets: sets(one), complete: true },
          { source: from('answer', 'b.test'), sets: sets(two), complete: false },
          { source: from('given', 'you'), sets: sets(given), complete: false },
        ]);
        const keys = merged.map((item) => rrsetKey(item.set.owner, item.set.type));
        expect([...keys].sort()).toEqual(
          [...new Set(sets(one.length + two.length > 0 ? [...one, ...two] : given).map((item) => rrsetKey(item.owner, item.type)))].sort(),
        );
        for (const item of merged) expect(item.evidence.some((evidence) => evidence.seen && evidence.agrees)).toBe(true);
      }),
    );
  });
});
