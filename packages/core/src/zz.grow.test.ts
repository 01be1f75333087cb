import { readText } from './reading/readText';
const S = { zone: 'kelp-forge.example.', as: 'old', own: [] } as const;
const units = ['a 300 IN TXT ( "b"\n', '$GENERATE 1-9 a( ', '(', '( ', ')\n', '"', '" ', ' " ', ': ', '\n', ' \n', '\t\n', '\r', '<tr', '<td ', '<td>"', '<input value="', 'a ', 'a;', 'a,"', '|', '| ', '\\', '$TTL ', '@ SOA ', 'é', '#\u2028', ' ', '\t', '> ', '- ', '* ', 'Name: ', 'Name:\n', 'A\n', 'A ', 'www A ', 'Type  ', '[', '{', '{"a":', '[[', '- a:\n', 'a:\n ', '&a [', '*a ', '!!', 'kelp-forge.example', '.kelp-forge.example ', 'ns1 ', 'ns1.', '1.', '1 ', '….', '-> ', 'record A ', 'www ', 'same www ', '=', 'v=spf1 ', '\u200b', '**a', '`'];
test('g', () => { const out: string[] = []; const n = Number(process.env.N ?? 4000);
  for (const unit of units) for (const before of ['', 'www A 192.0.2.1\n', '<table><tr><td>']) { const t = (k: number) => { const s = performance.now(); readText(`${before}${unit.repeat(k / unit.length)}\u2028x`, S); return performance.now() - s; };
    const a = t(n), b = t(2 * n); if (b > 150 && b / a > 2.6 || b > 1500) out.push(`${JSON.stringify(unit)} after ${JSON.stringify(before)}: ${a.toFixed(0)} ${b.toFixed(0)}`); }
  console.log(out.join('\n') || 'none'); });
