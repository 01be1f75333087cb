import { Random } from './random';
import { ACTIONS, HEADINGS, Headings, Language, STATES } from './words';
import { TextRecord } from './zone';

/** How one text writes names, values and TTLs. */
export interface Habit {
  readonly zone: string;
  readonly language: Language;
  /** How names below the domain stand: `@` and labels, in full, in full with a dot, or empty for the domain itself. */
  readonly names: 'relative' | 'full' | 'absolute' | 'empty';
  /** Whole names in values end in a dot. */
  readonly dots: boolean;
  readonly quotes: boolean;
  readonly ttls: 'seconds' | 'words' | 'auto' | 'none';
}

export function habitOf(random: Random, zone: string, language: Language): Habit {
  return {
    zone,
    language,
    names: random.pick(['relative', 'relative', 'full', 'absolute', 'empty'] as const),
    dots: random.chance(0.4),
    quotes: random.chance(0.5),
    ttls: random.pick(['seconds', 'seconds', 'words', 'auto', 'none'] as const),
  };
}

export function nameOf({ owner }: TextRecord, { names, zone }: Habit): string {
  if (names === 'relative') return owner;
  if (names === 'empty') return owner === '@' ? '' : owner;
  const whole = owner === '@' ? zone : `${owner}.${zone}`;
  return names === 'full' ? whole : `${whole}.`;
}

/** The value as a panel shows it: without the priority of mail where that has a place of its own. */
export function valueOf({ type, data }: TextRecord, { dots, quotes }: Habit, apart = false): string {
  const words = type === 'MX' && apart ? data.replace(/^\d+ /, '') : data;
  if (type === 'TXT') return quotes ? words : words.slice(1, -1);
  return dots || type === 'CAA' ? words : words.replace(/\.$/, '');
}

const UNITS: Readonly<Record<Language, readonly [string, string, string]>> = {
  en: ['min', 'hour', 'hours'],
  de: ['Min.', 'Stunde', 'Stunden'],
  fr: ['min', 'heure', 'heures'],
  es: ['min', 'hora', 'horas'],
  it: ['min', 'ora', 'ore'],
  nl: ['min', 'uur', 'uur'],
};

export function ttlOf({ ttl }: TextRecord, { ttls, language }: Habit): string {
  if (ttls === 'seconds' || ttl < 60) return String(ttl);
  if (ttls === 'auto') return 'Auto';
  const [minutes, one, more] = UNITS[language];
  if (ttl % 3600 !== 0) return `${ttl / 60} ${minutes}`;
  return `${ttl / 3600} ${ttl === 3600 ? one : more}`;
}

export type Columns = readonly (keyof Headings)[];

/** The columns of a panel, in an order that it might have. */
export function columnsOf(random: Random, habit: Habit, { noise }: { readonly noise: boolean }): Columns {
  const core: (keyof Headings)[] = random
    .pick([
      ['name', 'type', 'value'],
      ['type', 'name', 'value'],
      ['name', 'value', 'type'],
      ['type', 'value', 'name'],
    ] as const)
    .slice();
  const put = (column: keyof Headings, at: number): void => void core.splice(at, 0, column);
  if (habit.ttls !== 'none') put('ttl', random.pick([1, 2, core.length]));
  if (random.chance(0.4)) put('priority', random.pick([core.indexOf('value'), core.indexOf('value') + 1]));
  if (noise && random.chance(0.5)) put('state', random.pick([0, core.length]));
  if (noise && random.chance(0.5)) put('action', core.length);
  return core;
}

export function cellsOf(random: Random, record: TextRecord, columns: Columns, habit: Habit): string[] {
  const state = random.pick(STATES[habit.language]);
  return columns.map((column) => {
    switch (column) {
      case 'name':
        return nameOf(record, habit);
      case 'type':
        return record.type;
      case 'ttl':
        return ttlOf(record, habit);
      case 'priority':
        return record.type === 'MX' ? record.data.split(' ')[0]! : '';
      case 'state':
        return state;
      case 'action':
        return ACTIONS[habit.language][0]!;
      default:
        return valueOf(record, habit, columns.includes('priority'));
    }
  });
}

export function headOf(random: Random, columns: Columns, language: Language): string[] {
  return columns.map((column) => {
    const words = HEADINGS[language][column];
    return typeof words === 'string' ? words : random.pick(words);
  });
}

/** RFC 4180 §2. */
const csvCell = (cell: string, separator: string): string => (cell.includes(separator) || cell.includes('"') ? `"${cell.replaceAll('"', '""')}"` : cell);

export type Parting = 'tab' | 'gaps' | 'bars' | 'markdown' | 'comma' | 'semicolon' | 'html' | 'below';
export const PARTINGS: readonly Parting[] = ['tab', 'gaps', 'bars', 'markdown', 'comma', 'semicolon', 'html', 'below'];

const escaped = (text: string): string => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('"', '&quot;');

/** Rows, the heading first where there is one, as a table of some parting. */
export function drawTable(random: Random, rows: readonly (readonly string[])[], hasHead: boolean, parting: Parting): string {
  switch (parting) {
    case 'tab':
      return rows.map((row) => row.join('\t')).join('\n');
    case 'comma':
    case 'semicolon': {
      const separator = parting === 'comma' ? ',' : ';';
      return rows.map((row) => row.map((cell) => csvCell(cell, separator)).join(separator)).join('\n');
    }
    case 'gaps': {
      // An empty cell cannot be seen between gaps.
      const filled = rows.map((row) => row.map((cell) => (cell === '' ? '-' : cell)));
      const widths = filled[0]!.map((_, index) => Math.max(...filled.map((row) => row[index]!.length)) + 2 + random.below(2));
      return filled
        .map((row) =>
          row
            .map((cell, index) => cell.padEnd(widths[index]!))
            .join('')
            .trimEnd(),
        )
        .join('\n');
    }
    case 'bars':
      return rows.map((row) => row.join(' | ')).join('\n');
    case 'markdown': {
      const lines = rows.map((row) => `| ${row.join(' | ')} |`);
      if (hasHead) lines.splice(1, 0, `|${rows[0]!.map(() => '---').join('|')}|`);
      return lines.join('\n');
    }
    case 'html': {
      const draw = (row: readonly string[], tag: string): string => `<tr>${row.map((cell) => `<${tag}>${escaped(cell)}</${tag}>`).join('')}</tr>`;
      return `<table>\n${rows.map((row, index) => draw(row, hasHead && index === 0 ? 'th' : 'td')).join('\n')}\n</table>`;
    }
    case 'below':
      return rows.flatMap((row) => row.map((cell) => (cell === '' ? '-' : cell))).join('\n');
  }
}

export function fields(random: Random, records: readonly TextRecord[], habit: Habit, columns: Columns): string {
  const head = headOf(random, columns, habit.language);
  const mark = random.pick([': ', ' : ', ':\t']);
  return records
    .map((record) => {
      const cells = cellsOf(random, record, columns, habit);
      return columns.flatMap((column, index) => (column === 'action' || cells[index] === '' ? [] : [`${head[index]}${mark}${cells[index]}`])).join('\n');
    })
    .join('\n\n');
}

/** A zone file with one of the habits that such files have. */
export function zoneFile(random: Random, records: readonly TextRecord[], zone: string): string {
  const hasOrigin = random.chance(0.5);
  const absolute = !hasOrigin && random.chance(0.6);
  const lines: string[] = [];
  if (hasOrigin) lines.push(`$ORIGIN ${zone}.`);
  if (random.chance(0.6)) lines.push(`$TTL ${random.pick(['3600', '1h', '86400'])}`);
  const soa = `${absolute ? `${zone}.` : '@'} ${random.chance(0.5) ? '3600 ' : ''}IN SOA ns1.oldquay.example. host.oldquay.example. `;
  if (random.chance(0.6))
    lines.push(random.chance(0.5) ? `${soa}(\n\t2026010101 ; serial\n\t7200\n\t3600\n\t1209600\n\t3600 )` : `${soa}2026010101 7200 3600 1209600 3600`);
  const isMixed = random.chance(0.3);
  let before = '';
  for (const { owner, type, ttl, data } of records) {
    const name = absolute ? (owner === '@' ? `${zone}.` : `${owner}.${zone}.`) : owner;
    const shown = name === before && isMixed ? '' : name;
    before = name;
    const cls = random.pick(['IN ', 'IN ', '']);
    lines.push(random.chance(0.5) ? `${shown.padEnd(24)} ${ttl} ${cls}${type.padEnd(6)} ${data}` : `${shown}\t${ttl}\t${cls}${type}\t${data}`);
  }
  return lines.join('\n');
}

/** What a program that queries shows: a whole answer, or lines in words. */
export function lookup(random: Random, records: readonly TextRecord[], zone: string): string {
  const whole = ({ owner }: TextRecord): string => (owner === '@' ? zone : `${owner}.${zone}`);
  if (random.chance(0.5))
    return [
      `; <<>> a query <<>> ${zone}`,
      ';; ->>HEADER<<- opcode: QUERY, status: NOERROR, id: 4711',
      ';; ANSWER SECTION:',
      ...records.map((record) => `${whole(record)}.\t${record.ttl}\tIN\t${record.type}\t${record.data}`),
      '',
      ';; Query time: 12 msec',
      ';; SERVER: 192.0.2.53#53(192.0.2.53)',
    ].join('\n');
  const bare = ({ data }: TextRecord): string => data;
  return records
    .flatMap((record) => {
      switch (record.type) {
        case 'A':
          return [`${whole(record)} has address ${bare(record)}`];
        case 'AAAA':
          return [`${whole(record)} has IPv6 address ${bare(record)}`];
        case 'CNAME':
          return [`${whole(record)} is an alias for ${bare(record)}`];
        case 'MX':
          return [`${whole(record)} mail is handled by ${bare(record)}`];
        case 'TXT':
          return [`${whole(record)} descriptive text ${bare(record)}`];
        default:
          return [];
      }
    })
    .join('\n');
}

/** JSON or YAML in one of the shapes that programs give zones. */
export function tree(random: Random, records: readonly TextRecord[], habit: Habit, as: 'json' | 'yaml'): string {
  const keys = random.pick([
    { name: 'name', type: 'type', value: 'content', ttl: 'ttl', priority: 'priority' },
    { name: 'host', type: 'recordType', value: 'data', ttl: 'TTL', priority: 'prio' },
    { name: 'hostname', type: 'type', value: 'value', ttl: 'ttl', priority: 'pref' },
  ]);
  const entry = (record: TextRecord): Record<string, unknown> => ({
    [keys.name]: nameOf(record, habit),
    [keys.type]: record.type,
    [keys.value]: valueOf(record, habit, true),
    [keys.ttl]: record.ttl,
    ...(record.type === 'MX' ? { [keys.priority]: Number(record.data.split(' ')[0]) } : {}),
  });
  const data = ((): unknown => {
    switch (random.below(4)) {
      case 0:
        return records.map(entry);
      case 1:
        return { zone: habit.zone, records: records.map(entry) };
      case 2: {
        const byName: Record<string, Record<string, unknown>[]> = {};
        for (const record of records)
          (byName[nameOf(record, { ...habit, names: 'relative' })] ??= []).push({ type: record.type, ttl: record.ttl, value: valueOf(record, habit) });
        return byName;
      }
      default: {
        const sets = new Map<string, { name: string; type: string; ttl: number; values: string[] }>();
        for (const record of records) {
          const key = `${record.owner} ${record.type}`;
          const set = sets.get(key) ?? { name: nameOf(record, habit), type: record.type, ttl: record.ttl, values: [] };
          set.values.push(valueOf(record, habit));
          sets.set(key, set);
        }
        return { rrsets: [...sets.values()] };
      }
    }
  })();
  return as === 'json' ? JSON.stringify(data, null, random.pick([0, 2])) : yaml(data, '');
}

function yaml(data: unknown, indent: string): string {
  if (Array.isArray(data)) return data.map((one) => `${indent}- ${yaml(one, `${indent}  `).trimStart()}`).join('\n');
  if (typeof data === 'object' && data !== null)
    return Object.entries(data)
      .map(([key, value]) =>
        typeof value === 'object' ? `${indent}${scalar(key)}:\n${yaml(value, `${indent}  `)}` : `${indent}${scalar(key)}: ${scalar(value)}`,
      )
      .join('\n');
  return `${indent}${scalar(data)}`;
}

function scalar(value: unknown): string {
  const text = String(value);
  if (typeof value === 'number') return text;
  return /^[A-Za-z][\w.-]*$/.test(text) && !/^(y|n|yes|no|on|off|true|false|null)$/i.test(text) ? text : `'${text.replaceAll("'", "''")}'`;
}
