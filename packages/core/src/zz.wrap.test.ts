import { readText } from './reading/readText';
import { oldText } from './testing/texts/oldTexts';
import { oddText } from './testing/texts/oddTexts';
import { scoreOf } from './testing/texts/score';
import { wrapped, cutOff } from './testing/texts/wrapped';
const count = Number(process.env.COUNT ?? 1500), show = Number(process.env.SHOW ?? 6);
test('wrap', () => {
  let wrong = 0, n = 0; const out: string[] = []; const by: Record<string, number> = {};
  for (let seed = 1; n < count; seed += 1, n++) {
    const one = process.env.ODD ? oddText(seed) : oldText(seed);
    const text = process.env.CUT ? cutOff(one.text, seed) : wrapped(one.text, seed);
    const reading = readText(text, { zone: `${one.zone}.`, as: one.as, own: [] });
    if (one.about.startsWith('html')) continue;
    const s = scoreOf(reading, one);
    // a value cut at the very end cannot be seen
    const bad = process.env.CUT ? s.wrongSure.filter((k) => !one.truth.some((t) => k.startsWith((t.owner === '@' ? one.zone : `${t.owner}.${one.zone}`) + '. ' + t.type))) : s.wrongSure;
    if (bad.length) { wrong++; const f = one.about.split(',')[0]!; by[f] = (by[f] ?? 0) + 1;
      if (out.length < show) out.push(`#### ${seed} ${one.about} zone ${one.zone}\n${text.slice(0, 1400)}\n--- wrong sure: ${bad.join(' ;; ')}`); }
  }
  console.log(`wrong sure ${wrong}/${n} ${JSON.stringify(by)}\n${out.join('\n\n')}`);
});
