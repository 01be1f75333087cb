import { readText } from './reading/readText';
import { newText } from './testing/texts/newTexts';
import { scoreOf } from './testing/texts/score';
const from = Number(process.env.FROM ?? 1), count = Number(process.env.COUNT ?? 600), show = Number(process.env.SHOW ?? 6);
test('new', () => {
  let right = 0, wrong = 0, n = 0; const out: string[] = []; const by: Record<string, [number, number, number]> = {};
  for (let seed = from; n < count; seed += 2, n++) {
    const one = newText(seed);
    const reading = readText(one.text, { zone: `${one.zone}.`, as: 'new', own: [] });
    const s = scoreOf(reading, one);
    const is = (kind: string, data: string) => reading.finds.some((f) => f.kind === kind && f.data === data && f.trust !== 'out');
    const ms = [...one.servers.filter((x) => !is('nameserver', `${x}.`)), ...one.addresses.filter((x) => !is('address', x))];
    const ws = reading.finds.filter((f) => f.trust === 'sure' && ((f.kind === 'nameserver' && !one.servers.includes(f.data.slice(0, -1))) || (f.kind === 'address' && !one.addresses.includes(f.data)))).map((f) => f.data);
    const ok = s.isRight && ms.length === 0 && ws.length === 0;
    const f = (by[one.about.split(',')[0]!] ??= [0, 0, 0]); f[0]++; if (ok) { right++; f[1]++; } f[2] += s.asked;
    if (s.wrongSure.length + ws.length) wrong++;
    if (!ok && out.length < show) out.push(`#### ${seed} ${one.about} zone ${one.zone}\n${one.text.slice(0, 1200)}\n--- wrong sure: ${[...s.wrongSure, ...ws].join(' ;; ')}\n--- missing: ${[...s.missing, ...ms].join(' ;; ')}\n--- unread: ${reading.unread.map((u) => `${u.line}: ${u.text}`).join(' ;; ').slice(0, 500)}\n--- all: ${reading.finds.map((f) => `${f.kind} ${f.owner} ${f.type} ${f.data.slice(0, 40)} [${f.trust}: ${f.questions.join(' ')}]`).join('\n   ')}`);
  }
  console.log(`right ${right}/${n}, wrong sure ${wrong}\n${Object.entries(by).map(([k, [a, b, c]]) => `${k}: ${b}/${a} asked ${(c / a).toFixed(2)}`).join('\n')}\n${out.join('\n\n')}`);
});
