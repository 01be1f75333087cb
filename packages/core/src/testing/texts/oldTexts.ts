import { Random } from './random';
import { PARTINGS, Parting, cellsOf, columnsOf, drawTable, fields, habitOf, headOf, lookup, tree, zoneFile } from './forms';
import { ABOUT, FOOTERS, GREETINGS, LANGUAGES } from './words';
import { TextRecord, address, domain, zoneRecords } from './zone';

/** A text that somebody might have in hand, and what it truly says. */
export interface TextCase {
  readonly seed: number;
  readonly about: string;
  readonly as: 'old' | 'new';
  readonly text: string;
  /** Without final dot. */
  readonly zone: string;
  /** Records that stand in the text for what is asked. */
  readonly truth: readonly TextRecord[];
  /** Of these the text has name and type, and not the whole value. */
  readonly notWhole: readonly TextRecord[];
}

type Form = Parting | 'fields' | 'zone file' | 'lookup' | 'json' | 'yaml';
const FORMS: readonly Form[] = [...PARTINGS, 'fields', 'zone file', 'lookup', 'json', 'yaml'];

/** A text about what a place has. The same seed gives the same text. */
export function oldText(seed: number): TextCase {
  const random = new Random(seed);
  const zone = domain(random);
  const language = random.pick(LANGUAGES);
  const form = random.pick(FORMS);
  const records = zoneRecords(random);
  const habit = habitOf(random, zone, language);
  const noises: string[] = [];
  const noise = (name: string, share: number): boolean => {
    const is = random.chance(share);
    if (is) noises.push(name);
    return is;
  };
  let truth: readonly TextRecord[] = records;
  const notWhole: TextRecord[] = [];
  let text: string;
  const isTable = (PARTINGS as readonly string[]).includes(form);
  if (isTable) {
    const columns = columnsOf(random, habit, { noise: noise('state and action', 0.4) });
    const drawn = { ...habit, quotes: habit.quotes && form !== 'below' };
    const rows = records.map((record) => {
      const cells = cellsOf(random, record, columns, drawn);
      if (record.type !== 'TXT' || record.data.length < 40 || !random.chance(0.1)) return cells;
      // A panel that draws long values short.
      notWhole.push(record);
      const at = columns.indexOf('value');
      return cells.map((cell, index) => (index === at ? `${cell.slice(0, 24)}${random.pick(['…', '...'])}` : cell));
    });
    const hasHead = random.chance(0.7);
    const head = headOf(random, columns, language);
    text = drawTable(random, hasHead ? [head, ...rows] : rows, hasHead, form as Parting);
  } else if (form === 'fields') text = fields(random, records, habit, columnsOf(random, habit, { noise: false }));
  else if (form === 'zone file') text = zoneFile(random, records, zone);
  else if (form === 'lookup') {
    text = lookup(random, records, zone);
    truth = text.startsWith(';') ? records : records.filter(({ type }) => ['A', 'AAAA', 'CNAME', 'MX', 'TXT'].includes(type));
  } else text = tree(random, records, habit, form as 'json' | 'yaml');
  const isProgram = form === 'json' || form === 'yaml';
  if (form !== 'html' && !isProgram) {
    if (noise('another domain', 0.15)) {
      const other = domain(random);
      const others = zoneRecords(random).slice(0, 3);
      const whole = others.map(({ owner, type, ttl, data }) => `${owner === '@' ? other : `${owner}.${other}`}. ${ttl} IN ${type} ${data}`);
      if (other !== zone) text = `${text}\n\n${other}\n${whole.join('\n')}`;
    }
    if (noise('an example', 0.1)) text = `${text}\n\n${random.pick(ABOUT[language].example)}\nwww.example.com. 3600 IN A ${address(random)}`;
    if (form !== 'zone file' && noise('what is wanted', 0.1))
      text = `${text}\n\n${random.pick(ABOUT[language].next)}\n\n@ A ${address(random)}\nwww A ${address(random)}`;
  }
  if (!isProgram && noise('a greeting', 0.4)) text = `${random.pick(GREETINGS[language])}\n\n${text}`;
  if (!isProgram && noise('a footer', 0.4)) text = `${text}\n\n${random.pick(FOOTERS[language])}`;
  if (form !== 'html' && noise('a quoted mail', 0.1))
    text = text
      .split('\n')
      .map((line) => `> ${line}`)
      .join('\n');
  if (!isProgram && noise('unseen characters', 0.1)) text = `\ufeff${text.replace(/A/, '\u200bA')}`;
  if (noise('other line ends', 0.2)) text = text.replaceAll('\n', '\r\n');
  return {
    seed,
    as: 'old',
    about: [form, language, `names ${habit.names}`, ...noises].join(', '),
    text,
    zone,
    truth: truth.filter((record) => !notWhole.includes(record)),
    notWhole,
  };
}
