import { readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { transformSync } from '@swc/core';
import { Claims, claimsOf, earlyClaims } from '../testing/claims';
import { namesWorldOf } from '../testing/namesWorld';
import { World, repointWorldOf, worldOf } from '../testing/world';

/** Ten mistakes that somebody could make in the formulas, as changes of their text; each has to be caught by the worlds. */
const MISTAKES: readonly { readonly what: string; readonly file: string; readonly from: string; readonly to: string }[] = [
  {
    what: 'the TTL of the referral is forgotten',
    file: 'led',
    from: 'parent.add(server, { from, until: until + ttl, end })',
    to: 'parent.add(server, { from, until, end })',
  },
  {
    what: "the TTL of the zone's own NS set is forgotten",
    file: 'led',
    from: 'const at = last + ttl > settled ? Infinity : last + ttl;',
    to: 'const at = last + ttl > settled ? Infinity : last;',
  },
  { what: 'nobody extends a delegation', file: 'led', from: 'for (let changed = true; changed;)', to: 'for (let changed = false; changed;)' },
  {
    what: 'the TTL of an answer is forgotten',
    file: 'remembered',
    from: 'Math.min(run.until, span.until) + eff(run.value.ttl, floor)',
    to: 'Math.min(run.until, span.until)',
  },
  {
    what: 'time during which nobody looked is taken for quiet',
    file: 'runs',
    from: 'if (isGap(sighting, end))',
    to: 'if (isGap(sighting, end) && sightings.length < 0)',
  },
  {
    what: 'a run ends when it was last seen',
    file: 'runs',
    from: 'next ? next.first + how.allowance : Infinity);',
    to: 'next ? sighting.last + how.allowance : Infinity);',
  },
  {
    what: 'servers that stand in both sets are forgotten',
    file: 'earliestSwitch',
    from: 'for (const server of zones) {',
    to: 'for (const server of oldZones) {',
  },
  {
    what: 'the TTL of the DS is forgotten',
    file: 'signedUntil',
    from: 'td.firstNew + eff(D, floor) + eff(K, floor)',
    to: 'td.firstNew + eff(K, floor)',
  },
  {
    what: 'keys validated through the DS are forgotten',
    file: 'signedUntil',
    from: 'td.firstNew + eff(D, floor) + eff(K, floor)',
    to: 'td.firstNew + eff(D, floor)',
  },
  { what: 'the old TTL is not waited for', file: 'earliestSwitch', from: 'const at = l + ttl - target;', to: 'const at = l;' },
  {
    what: "the zone's own NS set may be remembered for long",
    file: 'earliestSwitch',
    from: 'consider(server, apexNs,',
    to: '((..._: unknown[]) => undefined)(server, apexNs,',
  },
  {
    what: 'a denial is taken for no answer',
    file: 'setHorizons',
    from: 'value && wanted.is(key, value) === false ?',
    to: 'value && value.data.length > 0 && wanted.is(key, value) === false ?',
  },
];

/** In worlds where records change in place. */
const IN_PLACE: readonly (typeof MISTAKES)[number][] = [
  {
    what: 'an old answer is forgotten once the new one is seen',
    file: 'setHorizons',
    from: 'value && wanted.is(key, value) === false ?',
    to: 'value && until === Infinity && wanted.is(key, value) === false ?',
  },
  {
    what: 'a lead that a server of the zone gave is forgotten',
    file: 'repointTimes',
    from: 'bounded ? spans.extending : spans.ordinary',
    to: 'new Map(waited.map((one) => [one.address, spans.ordinary.get(one.address) ?? []]))',
  },
];

/** In worlds where the names of the nameservers stay. */
const NAMES: readonly (typeof MISTAKES)[number][] = [
  {
    what: 'what servers of the zone give for the names is forgotten',
    file: 'leads',
    from: '...shared.flatMap((key) => lead(addresses(key), (data) => data))',
    to: '',
  },
  {
    what: 'the TTL of the glue is forgotten',
    file: 'leads',
    from: 'value: { servers: [one.address], ttl: one.ttl }',
    to: 'value: { servers: [one.address], ttl: 0 }',
  },
];

/** The rules with one of their files changed. */
function withMistake({ file, from, to }: (typeof MISTAKES)[number]): Claims {
  const path = join(__dirname, `${file}.ts`);
  const source = readFileSync(path, 'utf8');
  if (!source.includes(from)) throw new Error(`${file}.ts does not say: ${from}`);
  const { code } = transformSync(source.replace(from, to), {
    filename: path,
    jsc: { parser: { syntax: 'typescript' }, target: 'es2022' },
    module: { type: 'commonjs' },
  });
  let claims: Claims | undefined;
  jest.isolateModules(() => {
    jest.doMock(path, () => {
      const made = { exports: {} };
      new Function('require', 'exports', 'module', code)((id: string): unknown => jest.requireActual(join(dirname(path), id)), made.exports, made);
      return made.exports;
    });
    // Loaded anew, so that they take the changed file.
    const { legTimes } = jest.requireActual<typeof import('./legTimes')>('./legTimes');
    const { settledWhen } = jest.requireActual<typeof import('../watch/settled')>('../watch/settled');
    claims = { legTimes, settledWhen };
  });
  jest.dontMock(path);
  return claims!;
}

/** Whether one of 250 worlds shows a claim that is early. */
function caught(make: (seed: number, quiet: boolean) => World, mistake: (typeof MISTAKES)[number]): boolean {
  const claims = withMistake(mistake);
  for (let number = 0; number < 250; number++) if (earlyClaims(make(number, false), claims).early.length > 0) return true;
  return false;
}

describe('a mistake in the formulas', () => {
  it.each(MISTAKES.map((mistake) => [mistake.what, mistake] as const))('is caught: %s', (_what, mistake) => {
    expect(caught(worldOf, mistake)).toBe(true);
  });

  it.each(IN_PLACE.map((mistake) => [mistake.what, mistake] as const))('is caught where records change in place: %s', (_what, mistake) => {
    expect(caught(repointWorldOf, mistake)).toBe(true);
  });

  it.each(NAMES.map((mistake) => [mistake.what, mistake] as const))('is caught where names stay: %s', (_what, mistake) => {
    expect(caught(namesWorldOf, mistake)).toBe(true);
  });

  it('is what the worlds catch: without one they find nothing', () => {
    for (let number = 0; number < 60; number++) expect(earlyClaims(worldOf(number, false), claimsOf()).early).toEqual([]);
  });
});
