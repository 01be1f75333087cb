import { readText } from './reading/readText';
import { oldText } from './testing/texts/oldTexts';
test('p', () => { const by: Record<string, number> = {}; const slow: [number, number, string][] = [];
  for (let seed = 1; seed < 400; seed++) { const one = oldText(seed); const t = performance.now(); readText(one.text, { zone: `${one.zone}.`, as: 'old', own: [] }); const d = performance.now() - t; const f = one.about.split(',')[0]!; by[f] = (by[f] ?? 0) + d; slow.push([d, seed, one.about]); }
  console.log(by, slow.sort((a, b) => b[0] - a[0]).slice(0, 6)); });
