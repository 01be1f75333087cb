import { readText } from './reading/readText';
const S = { zone: 'kelp.example.', as: 'old', own: [] } as const;
test('b', () => { const out: string[] = [];
  const row = (i: number) => [`host-${i}`, i % 3 ? 'A' : 'TXT', i % 3 ? `192.0.2.${i % 250}` : `"v=spf1 include:spf-${i}.post.example -all"`, '3600'];
  const makers: Record<string, (n: number) => string> = {
    tab: (n) => Array.from({ length: n }, (_, i) => row(i).join('\t')).join('\n'),
    comma: (n) => Array.from({ length: n }, (_, i) => row(i).map((c) => c.includes('"') ? `"${c.replaceAll('"', '""')}"` : c).join(',')).join('\n'),
    words: (n) => Array.from({ length: n }, (_, i) => row(i)).map(([a, b, c, d]) => `${a} ${d} IN ${b} ${c}`).join('\n'),
    file: (n) => `$ORIGIN kelp.example.\n$TTL 60\n@ SOA a b 1 1 1 1 1\n` + Array.from({ length: n }, (_, i) => row(i)).map(([a, b, c, d]) => `${a} ${d} IN ${b} ${c}`).join('\n'),
    json: (n) => JSON.stringify(Array.from({ length: n }, (_, i) => row(i)).map(([name, type, value, ttl]) => ({ name, type, value, ttl }))),
    yaml: (n) => Array.from({ length: n }, (_, i) => row(i)).map(([name, type, value, ttl]) => `- name: ${name}\n  type: ${type}\n  ttl: ${ttl}\n  value: '${value}'`).join('\n'),
    html: (n) => `<table>${Array.from({ length: n }, (_, i) => `<tr>${row(i).map((c) => `<td>${c}</td>`).join('')}</tr>`).join('\n')}</table>`,
    fields: (n) => Array.from({ length: n }, (_, i) => row(i)).map(([a, b, c, d]) => `Name: ${a}\nType: ${b}\nValue: ${c}\nTTL: ${d}`).join('\n\n'),
    below: (n) => 'Name\nType\nValue\nTTL\n' + Array.from({ length: n }, (_, i) => row(i).join('\n')).join('\n'),
    names: (n) => Array.from({ length: n }, (_, i) => `host-${i}.kelp.example`).join('\n'),
    prose: (n) => Array.from({ length: n }, (_, i) => `Please set the A record for host-${i}.kelp.example to 192.0.2.${i % 250}.`).join('\n'),
  };
  for (const [k, make] of Object.entries(makers)) { if (process.env.ONLY && k !== process.env.ONLY) continue; const t = (n: number) => { const text = make(n); const s = performance.now(); const r = readText(text, S); return [performance.now() - s, r.finds.length, text.length, r.unread.length, r.leftOut]; };
    const a = t(5000), b = t(10000), c = t(20000); out.push(`${k}: ${a[0]!.toFixed(0)} ${b[0]!.toFixed(0)} ${c[0]!.toFixed(0)} finds ${c[1]} chars ${c[2]} unread ${c[3]} leftOut ${c[4]}`); }
  console.log(out.join('\n')); });
