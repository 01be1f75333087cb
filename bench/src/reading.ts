import { readText } from '@wanderon/core';
import { spread } from './support/measure';

/** Records of the shorter text; the longer has twice as many. */
const COUNT = 9_500;
const ROUNDS = 3;
const SUBJECT = { zone: 'kelp-forge.example.', as: 'old', own: [] } as const;

type Row = readonly [name: string, type: string, value: string, ttl: string];

const rows = (count: number): Row[] =>
  Array.from({ length: count }, (_, i): Row => {
    const isText = i % 3 === 0;
    return [`host-${i}`, isText ? 'TXT' : 'A', isText ? `"v=spf1 include:spf-${i}.post.example -all"` : `192.0.2.${i % 250}`, '3600'];
  });

const csvCell = (cell: string): string => (cell.includes('"') ? `"${cell.replaceAll('"', '""')}"` : cell);

/** The same records in each form that a text may have. */
const FORMS: Readonly<Record<string, (all: readonly Row[]) => string>> = {
  'zone file': (all) => `$TTL 60\n@ SOA a b 1 1 1 1 1\n${all.map(([name, type, value, ttl]) => `${name} ${ttl} IN ${type} ${value}`).join('\n')}`,
  'table with tabs': (all) => all.map((row) => row.join('\t')).join('\n'),
  CSV: (all) => all.map((row) => row.map(csvCell).join(',')).join('\n'),
  'list of words': (all) => all.map(([name, type, value, ttl]) => `${name} ${ttl} ${type} ${value}`).join('\n'),
  fields: (all) => all.map(([name, type, value, ttl]) => `Name: ${name}\nType: ${type}\nValue: ${value}\nTTL: ${ttl}`).join('\n\n'),
  'cells in lines of their own': (all) => `Name\nType\nValue\nTTL\n${all.map((row) => row.join('\n')).join('\n')}`,
  HTML: (all) => `<table>${all.map((row) => `<tr>${row.map((cell) => `<td>${cell}</td>`).join('')}</tr>`).join('\n')}</table>`,
  JSON: (all) => JSON.stringify(all.map(([name, type, value, ttl]) => ({ name, type, value, ttl }))),
  YAML: (all) => all.map(([name, type, value, ttl]) => `- name: ${name}\n  type: ${type}\n  ttl: ${ttl}\n  value: '${value}'`).join('\n'),
};

function seconds(text: string, count: number): number {
  const began = performance.now();
  const { finds } = readText(text, SUBJECT);
  const took = (performance.now() - began) / 1000;
  const sure = finds.filter(({ trust, type }) => trust === 'sure' && type !== 'SOA').length;
  if (sure !== count) throw new Error(`${sure} of ${count} records were read as sure`);
  return took;
}

for (const [form, make] of Object.entries(FORMS)) {
  const [shorter, longer] = [make(rows(COUNT)), make(rows(2 * COUNT))];
  seconds(shorter, COUNT);
  const ratios: number[] = [];
  let last = 0;
  for (let round = 0; round < ROUNDS; round++) {
    const once = seconds(shorter, COUNT);
    last = seconds(longer, 2 * COUNT);
    ratios.push(last / once);
  }
  console.log(`a text of ${2 * COUNT} records read, as ${form}: ${spread(ratios)} times the time of half of it (aim 2.2); ${last.toFixed(2)} s in the last`);
}

/** What hostile texts are made of: each is repeated until the text is as long as wanted. */
const UNITS = [
  '(',
  '( ',
  '[[',
  '"',
  '" ',
  '\\',
  ': ',
  'a ',
  'A\n',
  'a:\n ',
  '- a:\n',
  '&a [',
  '{"a":',
  '<td ',
  '<td>"',
  '> ',
  'www A ',
  'same www ',
  '$GENERATE 1-9 a( ',
  '**a',
];
const HOSTILE_OCTETS = 200_000;

const growths = UNITS.map((unit) => {
  const took = (octets: number): number => {
    const text = unit.repeat(octets / unit.length);
    const began = performance.now();
    readText(text, SUBJECT);
    return (performance.now() - began) / 1000;
  };
  took(HOSTILE_OCTETS / 4);
  const once = Math.min(took(HOSTILE_OCTETS), took(HOSTILE_OCTETS));
  const twice = Math.min(took(2 * HOSTILE_OCTETS), took(2 * HOSTILE_OCTETS));
  return { unit, ratio: twice / once, twice };
}).sort((a, b) => b.ratio - a.ratio);
for (const { unit, ratio, twice } of growths.slice(0, 5))
  console.log(
    `a text of ${2 * HOSTILE_OCTETS} octets of nothing but ${JSON.stringify(unit)}: ${ratio.toFixed(2)} times the time of half of it (aim 2.2); ${twice.toFixed(2)} s`,
  );
