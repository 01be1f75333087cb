import { readText } from './reading/readText';
import { oldText } from './testing/texts/oldTexts';
import { oddText } from './testing/texts/oddTexts';
import { scoreOf } from './testing/texts/score';
const from = Number(process.env.FROM ?? 1), count = Number(process.env.COUNT ?? 400), step = 2, show = Number(process.env.SHOW ?? 4);
test('score', () => {
  let right = 0, wrong = 0, n = 0, asked = 0; const out: string[] = []; const byForm: Record<string, [number, number, number]> = {};
  for (let seed = from; n < count; seed += step, n++) {
    const one = process.env.ODD ? oddText(seed) : oldText(seed);
    const reading = readText(one.text, { zone: `${one.zone}.`, as: one.as, own: [] });
    const s = scoreOf(reading, one);
    const f = (byForm[one.about.split(',')[0]!] ??= [0, 0, 0]); f[0]++;
    if (s.isRight) { right++; f[1]++; } 
    asked += s.asked; f[2] += s.asked;
    if (s.wrongSure.length) wrong++;
    if ((!s.isRight) && out.length < show && (!process.env.FORM || one.about.startsWith(process.env.FORM)))
      out.push(`#### ${seed} ${one.about} zone ${one.zone}\n${process.env.SHORT ? '' : one.text.slice(0, 1500)}\n--- wrong sure: ${s.wrongSure.join(' ;; ')}\n--- missing: ${s.missing.join(' ;; ')}\n--- unread: ${reading.unread.map((u) => `${u.line}: ${u.text}`).join(' ;; ').slice(0,600)}\n--- asks: ${reading.finds.filter(f=>f.trust!=='sure').slice(0,6).map(f=>`${f.owner} ${f.type} ${f.data.slice(0,30)} [${f.trust}: ${f.questions.join(' ')}]`).join('\n   ')}`);
  }
  console.log(`right ${right}/${n}, texts with wrong sure ${wrong}, asked ${(asked/n).toFixed(2)}\n${Object.entries(byForm).map(([k, [a, b, c]]) => `${k}: ${b}/${a} asked ${(c/a).toFixed(2)}`).join('\n')}\n${out.join('\n\n')}`);
});
