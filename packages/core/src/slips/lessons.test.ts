import { KnownStyle } from '../hosts/entryStyle';
import { TypedSet, lessonsOf } from './lessons';

const set = (codes: readonly string[], more: Partial<TypedSet> = {}): TypedSet => ({
  type: 'A',
  ttl: 300,
  served: { ttl: 300, data: ['192.0.2.1'] },
  codes,
  ...more,
});
const keys = (known: KnownStyle | null, ...sets: TypedSet[]): string[] => lessonsOf(known, sets).map(({ key }) => key);

describe('what a panel teaches', () => {
  it('is what it did, once, and nothing of what is noted already', () => {
    const sets = [set(['name appended']), set(['target gained the zone']), set(['target gained the zone'])];
    expect(keys(null, ...sets)).toEqual(['names', 'targetDot']);
    expect(keys({ names: 'relative' }, ...sets)).toEqual(['targetDot']);
    expect(keys({ names: 'relative', targetDot: 'refused' }, ...sets)).toEqual(['targetDot']);
    expect(keys({ names: 'relative', targetDot: 'required' }, ...sets)).toEqual([]);
  });

  it('is nothing of what a person did wrong', () => expect(keys(null, set(['misspelt', 'number', 'not there', 'other name', 'url']))).toEqual([]));

  it('tells short texts from long ones', () => {
    const long = { type: 'TXT', served: { ttl: 300, data: [`"\\"${'a'.repeat(250)}" "${'b'.repeat(90)}\\""`] } };
    expect(lessonsOf(null, [set(['quotes stored'], long)])[0]!.choices[0]!.change).toMatchObject({ longText: 'whole' });
    expect(lessonsOf(null, [set(['quotes stored'], { type: 'TXT', served: { ttl: 300, data: ['"\\"v=spf1 -all\\""'] } })])[0]!.choices[0]!.change).toEqual({
      text: 'bare',
    });
    expect(keys(null, set(['text cut'], { type: 'TXT', served: { ttl: 300, data: [`"${'a'.repeat(255)}"`] } }))).toEqual(['longText']);
    expect(keys(null, set(['text cut'], { type: 'TXT', served: { ttl: 300, data: [`"${'a'.repeat(60)}"`] } }))).toEqual([]);
  });

  it('has both answers where the sign for the domain was taken for a name', () =>
    expect(lessonsOf(null, [set(['apex as a name'])])[0]!.choices.map(({ change }) => change)).toEqual([{ apex: 'empty' }, { apex: 'whole' }]));
});

describe('TTLs that a panel gives by itself', () => {
  const served = (ttl: number): Partial<TypedSet> => ({ served: { ttl, data: ['192.0.2.1'] } });

  it('are seen in all sets alike, and never in one alone', () => {
    expect(lessonsOf(null, [set([], served(3600)), set([], served(3600))])[0]!.choices.map(({ change }) => change)).toEqual([
      { ttls: null },
      { ttls: [], leastTtl: 3600 },
    ]);
    expect(keys(null, set([], served(3600)))).toEqual([]);
    expect(keys(null, set([], served(3600)), set([], served(300)))).toEqual([]);
    expect(keys(null, set([], served(3600)), set([], served(7200)))).toEqual([]);
    expect(keys({ ttls: null }, set([], served(3600)), set([], served(3600)))).toEqual([]);
  });

  it('that are lower are no least', () =>
    expect(lessonsOf(null, [set([], served(60)), set([], served(60))])[0]!.choices.map(({ change }) => change)).toEqual([{ ttls: null }]));
});
