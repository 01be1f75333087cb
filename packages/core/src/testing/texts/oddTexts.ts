import { Random } from './random';
import { Habit, cellsOf, habitOf, headOf, nameOf, ttlOf, valueOf } from './forms';
import { TextCase } from './oldTexts';
import { ABOUT, ACTIONS, FOOTERS, GREETINGS, HEADINGS, LANGUAGES, Language } from './words';
import { TextRecord, address, domain, hostName, zoneRecords } from './zone';

interface Made {
  readonly text: string;
  readonly truth: readonly TextRecord[];
  readonly notWhole?: readonly TextRecord[];
}

type Maker = (random: Random, records: readonly TextRecord[], habit: Habit) => Made;

const whole = ({ owner }: TextRecord, zone: string): string => (owner === '@' ? zone : `${owner}.${zone}`);
const joinLines = (lines: readonly string[]): string => lines.join('\n');
const ICONS = ['☐', '✓', '⋮', '🔒', '●', '🗑'];

/** Ways to write a zone that panels, people and programs have beside plain tables. */
const MAKERS: Readonly<Record<string, Maker>> = {
  'a section for each type': (random, records, habit) => {
    const types = [...new Set(records.map(({ type }) => type))];
    const title = random.pick(['% records', '%', '% Records', '%:', '%-Einträge', 'Enregistrements %']);
    const mark = random.pick(['\t', '  ', ' | ']);
    const text = types
      .map((type) =>
        [
          title.replace('%', type),
          ...records
            .filter((one) => one.type === type)
            .map((one) => `${nameOf(one, { ...habit, names: habit.names === 'empty' ? 'relative' : habit.names })}${mark}${valueOf(one, habit)}`),
        ].join('\n'),
      )
      .join('\n\n');
    return { text, truth: records };
  },
  arrows: (random, records, habit) => {
    const arrow = random.pick([' -> ', ' → ', ' => ']);
    const some = records.filter(({ type }) => type !== 'SRV' && type !== 'CAA');
    return { text: joinLines(some.map((one) => `${whole(one, habit.zone)} ${one.type}${arrow}${valueOf(one, { ...habit, dots: false })}`)), truth: some };
  },
  'name and domain apart': (random, records, habit) => {
    const head = [
      random.pick(HEADINGS[habit.language].name),
      { en: 'Domain', de: 'Domain', fr: 'Domaine', es: 'Dominio', it: 'Dominio', nl: 'Domein' }[habit.language],
      'TTL',
      random.pick(HEADINGS[habit.language].type),
      random.pick(HEADINGS[habit.language].value),
    ];
    const rows = records.map((one) => [one.owner === '@' ? random.pick(['', '@']) : one.owner, habit.zone, String(one.ttl), one.type, valueOf(one, habit)]);
    return { text: joinLines([head, ...rows].map((row) => row.join('\t'))), truth: records };
  },
  'the ending drawn beside the label': (_random, records, habit) => ({
    text: joinLines(
      [
        ['Type', 'Name', 'Content', 'TTL'],
        ...records.map((one) => [one.type, one.owner === '@' ? habit.zone : `${one.owner} .${habit.zone}`, valueOf(one, habit), String(one.ttl)]),
      ].map((row) => row.join('\t')),
    ),
    truth: records,
  }),
  'boxes and icons first': (random, records, habit) => {
    const icon = random.pick(ICONS);
    return {
      text: joinLines(
        records.map((one) =>
          [icon, one.type, whole(one, habit.zone), valueOf(one, habit), ttlOf(one, { ...habit, ttls: 'words' }), random.pick(ICONS)].join('\t'),
        ),
      ),
      truth: records,
    };
  },
  'single blanks, type first': (random, records, habit) => {
    const dots = random.chance(0.5);
    return {
      text: joinLines(
        records.map((one) => `${one.type} ${nameOf(one, { ...habit, names: 'relative' })} ${valueOf(one, { ...habit, quotes: true, dots })} ${one.ttl}`),
      ),
      truth: records,
    };
  },
  'single blanks with buttons': (random, records, habit) => ({
    text: joinLines(
      records.map(
        (one) =>
          `${whole(one, habit.zone)} ${one.ttl} ${one.type} ${valueOf(one, { ...habit, quotes: true })} ${random.pick(ACTIONS[habit.language]).replaceAll('|', '')}`,
      ),
    ),
    truth: records,
  }),
  'cells below each other with gaps': (random, records, habit) => {
    const isExtra = random.chance(0.5);
    const text = records
      .map((one) =>
        joinLines([
          one.type,
          whole(one, habit.zone),
          ...(isExtra && one.type === 'MX' ? [one.data.split(' ')[0]!, valueOf(one, habit, true)] : [valueOf(one, habit)]),
          ttlOf(one, { ...habit, ttls: 'auto' }),
        ]),
      )
      .join('\n\n');
    return { text, truth: records };
  },
  'cards of a page': (random, records, habit) => {
    const head = HEADINGS[habit.language];
    const labels = [random.pick(head.type), random.pick(head.name), random.pick(head.value)];
    const text = records
      .map((one) => {
        const values = [one.type, nameOf(one, { ...habit, names: 'relative' }), valueOf(one, habit)];
        return `<div class="card">${labels.map((label, index) => `<div><label>${label}</label><input type="text" value="${values[index]!.replaceAll('"', '&quot;')}"><button>Copy</button></div>`).join('')}</div>`;
      })
      .join('\n');
    return { text, truth: records };
  },
  'definition lists': (random, records, habit) => {
    const head = HEADINGS[habit.language];
    const text = records
      .map(
        (one) =>
          `<dl><dt>${random.pick(head.type)}</dt><dd>${one.type}</dd><dt>${random.pick(head.name)}</dt><dd>${whole(one, habit.zone)}</dd><dt>${random.pick(head.value)}</dt><dd><code>${valueOf(one, habit).replaceAll('"', '&quot;')}</code></dd></dl>`,
      )
      .join('\n');
    return { text, truth: records };
  },
  'JSON by type': (_random, records, habit) => {
    const byType: Record<string, unknown[]> = {};
    for (const one of records) (byType[one.type] ??= []).push({ name: nameOf(one, { ...habit, names: 'full' }), value: valueOf(one, habit), ttl: one.ttl });
    return { text: JSON.stringify({ domain: habit.zone, dns: byType }, null, 2), truth: records };
  },
  'JSON with numbers of types': (_random, records, habit) => {
    const codes: Record<string, number> = { A: 1, AAAA: 28, CNAME: 5, MX: 15, TXT: 16, SRV: 33, CAA: 257 };
    return {
      text: JSON.stringify({
        Status: 0,
        Answer: records.map((one) => ({ name: `${whole(one, habit.zone)}.`, type: codes[one.type], TTL: one.ttl, data: one.data })),
      }),
      truth: records,
    };
  },
  'JSON in one object for each name': (_random, records, habit) => {
    const byName: Record<string, Record<string, string[]>> = {};
    for (const one of records) ((byName[nameOf(one, { ...habit, names: 'relative' })] ??= {})[one.type] ??= []).push(valueOf(one, habit));
    return { text: JSON.stringify({ [habit.zone]: byName }, null, 2), truth: records };
  },
  'YAML lists of values': (_random, records, habit) => {
    const byName = new Map<string, Map<string, string[]>>();
    for (const one of records) {
      const types = byName.get(one.owner) ?? new Map<string, string[]>();
      types.set(one.type, [...(types.get(one.type) ?? []), valueOf(one, habit)]);
      byName.set(one.owner, types);
    }
    const lines = [...byName].flatMap(([owner, types]) => [
      `"${owner}":`,
      ...[...types].flatMap(([type, values]) => [
        `  - type: ${type}`,
        '    ttl: 3600',
        '    values:',
        ...values.map((value) => `      - '${value.replaceAll("'", "''")}'`),
      ]),
    ]);
    return { text: joinLines(lines), truth: records };
  },
  'short answers at a prompt': (_random, records, habit) => {
    const keys = [...new Set(records.map((one) => `${whole(one, habit.zone)} ${one.type}`))];
    return {
      text: joinLines(
        keys.flatMap((key) => [`$ dig +short ${key}`, ...records.filter((one) => `${whole(one, habit.zone)} ${one.type}` === key).map(({ data }) => data)]),
      ),
      truth: records,
    };
  },
  'a zone file within a mail': (random, records, habit) => {
    const lines = [
      `$ORIGIN ${habit.zone}.`,
      '@ 3600 IN SOA ns1.oldquay.example. host.oldquay.example. 7 7200 3600 1209600 3600',
      ...records.map((one) => `${one.owner} ${one.ttl} IN ${one.type} ${one.data}${random.chance(0.2) ? ' ; checked' : ''}`),
    ];
    return {
      text: `${random.pick(GREETINGS[habit.language])}\n\n${random.pick(['', '```\n'])}${joinLines(lines)}\n\n${random.pick(FOOTERS[habit.language])}`,
      truth: records,
    };
  },
  'two zones in one text': (random, records, habit) => {
    const other = `x${domain(random)}`;
    const part = (zone: string, all: readonly TextRecord[]): string =>
      joinLines([`$ORIGIN ${zone}.`, '$TTL 3600', ...all.map((one) => `${one.owner}\tIN\t${one.type}\t${one.data}`)]);
    const parts = random.shuffled([part(habit.zone, records), part(other, zoneRecords(random))]);
    return { text: parts.join('\n\n'), truth: records };
  },
  'values now and then': (random, records, habit) => {
    const head = HEADINGS[habit.language];
    const some = records.filter(({ type }) => type === 'A' || type === 'CNAME');
    const rows = some.map((one) => {
      const other = one.type === 'A' ? address(random) : hostName(random).replace(/\.$/, '');
      const pair = [valueOf(one, habit), other];
      return [one.type, nameOf(one, { ...habit, names: 'relative' }), ...pair];
    });
    return { text: joinLines([[head.type[0]!, head.name[0]!, head.now, head.next], ...rows].map((row) => row.join('\t'))), truth: some };
  },
  'another client in the same table': (random, records, habit) => {
    const other = `x${domain(random)}`;
    const rows = random.shuffled([
      ...records.map((one) => [whole(one, habit.zone), one.type, valueOf(one, habit)]),
      ...zoneRecords(random).map((one) => [whole(one, other), one.type, valueOf(one, habit)]),
    ]);
    return { text: joinLines([['Name', 'Type', 'Value'], ...rows].map((row) => row.join('\t'))), truth: records };
  },
  'texts broken over lines': (random, records, habit) => {
    const lines: string[] = [];
    const notWhole: TextRecord[] = [];
    for (const one of records) {
      const value = valueOf(one, { ...habit, quotes: false });
      const row = `${whole(one, habit.zone)} ${one.ttl} IN ${one.type} ${value}`;
      if (one.type === 'TXT' && row.length > 72) {
        const at = random.chance(0.5) ? row.lastIndexOf(' ', 71) : 71;
        lines.push(row.slice(0, at), row.slice(at).trimStart());
        notWhole.push(one);
      } else lines.push(row);
    }
    return { text: joinLines(lines), truth: records.filter((one) => !notWhole.includes(one)), notWhole };
  },
  'a line of labels for each record': (random, records, habit) => {
    const head = HEADINGS[habit.language];
    const [name, type, value] = [random.pick(head.name), random.pick(head.type), random.pick(head.value)];
    const mark = random.pick([', ', ' | ', '; ', '  ']);
    return {
      text: joinLines(
        records
          .filter((one) => one.type !== 'TXT')
          .map((one) => [`${type}: ${one.type}`, `${name}: ${nameOf(one, { ...habit, names: 'relative' })}`, `${value}: ${valueOf(one, habit)}`].join(mark)),
      ),
      truth: records.filter((one) => one.type !== 'TXT'),
    };
  },
  'a table turned on its side': (random, records, habit) => {
    const head = HEADINGS[habit.language];
    const rows = [
      [random.pick(head.name), ...records.map((one) => whole(one, habit.zone))],
      [random.pick(head.type), ...records.map(({ type }) => type)],
      [random.pick(head.value), ...records.map((one) => valueOf(one, habit))],
    ];
    return { text: joinLines(rows.map((row) => row.join('\t'))), truth: records };
  },
  'redirects among the rows': (random, records, habit) => {
    const rows = records.map((one) => [one.type, nameOf(one, { ...habit, names: 'relative' }), valueOf(one, habit), String(one.ttl)]);
    rows.splice(
      random.below(rows.length),
      0,
      ['URL Redirect', 'old', `https://www.${habit.zone}/`, '3600'],
      ['Web forward', 'go', 'https://pages.hearth.example/x', '3600'],
    );
    return { text: joinLines([['Type', 'Name', 'Value', 'TTL'], ...rows].map((row) => row.join('\t'))), truth: records };
  },
  'rows under names': (_random, records, habit) => {
    const owners = [...new Set(records.map(({ owner }) => owner))];
    return {
      text: owners
        .map((owner) =>
          joinLines([
            owner === '@' ? habit.zone : `${owner}.${habit.zone}`,
            ...records.filter((one) => one.owner === owner).map((one) => `${one.type}\t${valueOf(one, habit)}\t${one.ttl}`),
          ]),
        )
        .join('\n\n'),
      truth: records,
    };
  },
  'names once for several rows': (_random, given, habit) => {
    // A name other than the domain itself with two records, the second without a name.
    const first = given.find(({ owner, type }) => owner !== '@' && type === 'A');
    const records = first ? [...given, { ...first, type: 'AAAA', data: '2001:db8:1::7' }] : given;
    const sorted = [...new Set(records.map(({ owner }) => owner))].flatMap((owner) => records.filter((one) => one.owner === owner));
    return {
      text: joinLines(
        [
          ['Host', 'Type', 'Value'],
          ...sorted.map((one, index) => [index > 0 && sorted[index - 1]!.owner === one.owner ? '' : whole(one, habit.zone), one.type, valueOf(one, habit)]),
        ].map((row) => row.join('\t')),
      ),
      truth: sorted,
    };
  },
  'a preference in brackets': (_random, records, habit) => {
    const rows = records.map((one) => [
      whole(one, habit.zone),
      one.type,
      one.type === 'MX' ? `${valueOf(one, habit, true)} (${one.data.split(' ')[0]})` : valueOf(one, habit),
    ]);
    return { text: joinLines([['Name', 'Type', 'Points to'], ...rows].map((row) => row.join('\t'))), truth: records };
  },
  'several values in a cell': (random, records, habit) => {
    const web = records.find((one) => one.owner === '@' && one.type === 'A')!;
    const more = { ...web, data: address(random) };
    const rows = records.map((one) => [whole(one, habit.zone), one.type, one === web ? `${one.data}, ${more.data}` : valueOf(one, habit)]);
    return { text: joinLines([['Name', 'Type', 'Value'], ...rows].map((row) => row.join('\t'))), truth: [...records, more] };
  },
  'heads in two languages': (random, records, habit) => {
    const other = random.pick(LANGUAGES);
    const columns = ['type', 'name', 'value', 'ttl'] as const;
    const half = random.below(records.length);
    const draw = (all: readonly TextRecord[], language: Language, order: readonly (typeof columns)[number][]): string =>
      joinLines(
        [headOf(random, order, language), ...all.map((one) => cellsOf(random, one, order, { ...habit, ttls: 'seconds' }))].map((row) => row.join('\t')),
      );
    return {
      text: `${draw(records.slice(0, half), habit.language, columns)}\n\n${draw(records.slice(half), other, random.shuffled(columns))}`,
      truth: records,
    };
  },
  'an old part below': (random, records, habit) => {
    const { old } = ABOUT[habit.language];
    const rows = (all: readonly TextRecord[]): string => joinLines(all.map((one) => `${one.owner}\t${one.ttl}\t${one.type}\t${valueOf(one, habit)}`));
    const wanted = records.map((one) => (one.type === 'A' ? { ...one, data: address(random) } : one)).filter(({ type }) => type === 'A');
    return { text: `${random.pick(old)}\n\n${rows(records)}\n\n${random.pick(ABOUT[habit.language].next)}\n\n${rows(wanted)}`, truth: records };
  },
};

export const ODD_FORMS: readonly string[] = Object.keys(MAKERS);

/** A text in one of the stranger forms. The same seed gives the same text. */
export function oddText(seed: number): TextCase {
  const random = new Random(seed + 77_000);
  const zone = domain(random);
  const language = random.pick(LANGUAGES);
  const about = random.pick(ODD_FORMS);
  const habit = habitOf(random, zone, language);
  const made = MAKERS[about]!(random, zoneRecords(random), habit);
  let { text } = made;
  const isProgram = /JSON|YAML/.test(about);
  const isPage = /page|definition/.test(about);
  if (!isProgram && !isPage && random.chance(0.25)) text = `${random.pick(GREETINGS[language])}\n\n${text}`;
  if (!isProgram && !isPage && random.chance(0.25)) text = `${text}\n\n${random.pick(FOOTERS[language])}`;
  return { seed, about: `${about}, ${language}, names ${habit.names}`, as: 'old', text, zone, truth: made.truth, notWhole: made.notWhole ?? [] };
}
