import {
  Entry,
  KnownStyle,
  Name,
  PanelQuestion,
  RRset,
  RRsetText,
  SheetRow,
  TypedSet,
  ZoneAnswers,
  askedInstead,
  groupRecords,
  lessonsOf,
  panelQuestions,
  panelTtl,
  parseZoneFile,
  recordSlip,
  rrsetToText,
  sheetOf,
  styleOf,
  textsOf,
  typeCode,
} from '@wanderon/core';
import { AuthZone } from './authZone';
import { PANELS, PanelHabits, Typed, add } from './handPanel';

/** A person at a panel that nobody described: reads the sheet, types, sees what it shows, and notes what Wanderon offers to note. */

const LONG = `v=DKIM1; p=${'MIIBIjANBgkqhkiG9w0BAQEF'.repeat(14)}`;
const records = (name: string): string => `
@ A 192.0.2.80
@ AAAA 2001:db8::80
@ MX 10 mx1.brinepost.example.
@ MX 20 mx2.brinepost.example.
@ TXT "v=spf1 include:spf.brinepost.example -all"
www CNAME edge.thornwick.example.
shop.eu CNAME ${name}
_sip._tcp SRV 10 20 5060 voice.brinepost.example.
_dmarc TXT "v=DMARC1; p=none; rua=mailto:post@brinepost.example"
key._domainkey TXT ${LONG.match(/.{1,255}/g)!
  .map((part) => `"${part}"`)
  .join(' ')}
files A 192.0.2.81
`;
const planOf = (name: string): RRsetText[] =>
  groupRecords(parseZoneFile(`$TTL 300\n${records(name)}`, Name.parse(name)).records).map((set) => rrsetToText(set));

/** The ninth: it appends the domain where it lacks, wants dots, quotes and an empty field for the domain, and knows no TTL below two hours. */
const NINTH: PanelHabits = {
  ...{ company: 'Ninth', appends: 'where it lacks', apex: '', dot: 'needed', quotes: 'taken', priority: 'value', ttls: 7200, lacks: [] },
};
const NINE: readonly [string, PanelHabits][] = [...Object.entries(PANELS), ['a ninth', NINTH]];

const emptyZone = (name: string): AuthZone => new AuthZone(Name.parse(name), parseZoneFile('@ 60 SOA ns1 host 1 60 60 60 60\n', Name.parse(name)).records);
const asTyped = ({ name, type, priority, value, ttl }: Entry): Typed => ({ name, type, priority: priority ?? '', value, ttl: ttl ?? '' });

interface Move {
  readonly zone: AuthZone;
  /** What the panel refused, or answered otherwise than planned, before it was mended. */
  readonly corrections: readonly string[];
  readonly known: KnownStyle;
}

/** What the person sees in front of the panel, when the sheet asks. */
function answersOf(habits: PanelHabits): Required<Pick<KnownStyle, PanelQuestion['field']>> {
  return {
    names: habits.appends === 'never' ? 'whole' : 'relative',
    targetDot: habits.dot === 'needed' ? 'required' : habits.dot === 'refused' ? 'refused' : 'either',
    priority: habits.priority === 'field' ? 'own field' : 'in value',
    longText: habits.quotes === 'taken' ? 'parts' : 'whole',
  };
}

/** The first question whose answer is not the one by which the sheet was written; else what is known stays. */
function answered(known: KnownStyle, rows: readonly SheetRow[], name: string, habits: PanelHabits): KnownStyle {
  const seen = answersOf(habits);
  const question = panelQuestions(known, rows, name.slice(0, -1)).find(({ field }) => seen[field] !== styleOf(known)[field]);
  const answer = question?.answers.find(({ change }) => change[question.field] === seen[question.field]);
  if (question && !answer) throw new Error(`${question.question}: nothing fits what is seen`);
  return { ...known, ...answer?.change };
}

function move(habits: PanelHabits, name: string, before: KnownStyle): Move {
  let known = before;
  const corrections: string[] = [];
  const plan = planOf(name);
  let zone = emptyZone(name);
  for (let round = 0; round < 12; round++) {
    zone = emptyZone(name);
    const rows = sheetOf(
      known,
      name,
      plan.map((set) => ({ owner: set.owner, type: set.type, there: undefined, planned: set })),
    );
    const refused = typeAll(habits, zone, rows);
    const told = readBack(zone, name, plan, known);
    const lessons = lessonsOf(known, told);
    const wrong = told.flatMap(({ codes }) => codes.filter((code) => code !== 'text split'));
    if (refused.length === 0 && wrong.length === 0 && lessons.length === 0) break;
    corrections.push(...refused, ...wrong.filter((code) => code !== 'not there'), ...lessons.map(({ key }) => key));
    // What a panel refuses the person sees at once, and answers a question of the sheet.
    if (refused.length > 0) known = answered(known, rows, name, habits);
    for (const { key, choices } of lessons) {
      const right = key === 'apex' ? choices.find(({ change }) => change.apex === (habits.apex === '' ? 'empty' : 'whole')) : choices[0];
      known = { ...known, ...right!.change };
    }
  }
  return { zone, corrections, known };
}

function typeAll(habits: PanelHabits, zone: AuthZone, rows: readonly SheetRow[]): string[] {
  return rows.flatMap(({ entry }) => {
    try {
      add(habits, zone, asTyped(entry!));
      return [];
    } catch (error) {
      return [`refused: ${entry!.type}, ${(error as Error).message}`];
    }
  });
}

function readBack(zone: AuthZone, name: string, plan: readonly RRsetText[], known: KnownStyle): TypedSet[] {
  const answers = new ZoneAnswers(Name.parse(name), zone.all());
  const ask = (owner: string, type: string): RRset | undefined => {
    const at = Name.parse(owner);
    return answers.ask(at, typeCode(type)!).answers.find((set) => set.type === typeCode(type) && set.owner.equals(at));
  };
  const rows = plan.map(({ owner, type, data }) => ({ owner, type, planned: [...data].sort() }));
  return rows.map(({ owner, type, planned }): TypedSet => {
    const set = ask(owner, type);
    const served = { ttl: set?.ttl ?? 0, data: set ? textsOf(set) : [] };
    const ttl = panelTtl(styleOf(known), 300);
    if ([...served.data].sort().join('\n') === planned.join('\n')) return { type, ttl, served, codes: [] };
    const instead = askedInstead({ owner, type, zone: name }).map((one) => `${one.owner} ${one.type}`);
    const elsewhere = (at: string, as: string): string[] | undefined =>
      instead.includes(`${at} ${as}`) || rows.some((row) => row.owner === at && row.type === as)
        ? textsOf(ask(at, as) ?? ({ data: [] as RRset['data'], type: 1 } as RRset))
        : undefined;
    const slip = recordSlip({ zone: name, owner, type, planned, served: served.data, found: [], elsewhere, rows, isFront: () => false });
    return { type, ttl, served, codes: slip?.codes ?? ['none'] };
  });
}

describe.each(NINE)('a panel that nobody described: %s', (_id, habits) => {
  const first = move(habits, 'choir.example.', {});

  it('is learned in the first move: the zone is as planned in the end', () => {
    const left = readBack(first.zone, 'choir.example.', planOf('choir.example.'), first.known);
    expect(left.flatMap(({ codes }) => codes).filter((code) => code !== 'text split')).toEqual([]);
  });

  it('needs nothing mended in the second', () => {
    const second = move(habits, 'canoe-yard.example.', first.known);
    expect(second.corrections).toEqual([]);
    const left = readBack(second.zone, 'canoe-yard.example.', planOf('canoe-yard.example.'), second.known);
    expect(left.flatMap(({ codes }) => codes).filter((code) => code !== 'text split')).toEqual([]);
  });
});

it('is no test of panels that teach nothing', () => {
  const taught = NINE.filter(([, habits]) => move(habits, 'choir.example.', {}).corrections.length > 0);
  // Some want what most want.
  expect(taught.length).toBeGreaterThanOrEqual(7);
});
