import {
  Entry,
  Name,
  RRset,
  RRsetText,
  SheetSet,
  ZoneAnswers,
  askedInstead,
  groupRecords,
  isHostsOwn,
  parseZoneFile,
  proposeRulings,
  recordSlip,
  sheetOf,
  textsOf,
  typeCode,
  typeMnemonic,
  printRdata,
} from '@wanderon/core';
import { AuthZone } from './authZone';
import { PANELS, Typed, add, remove } from './handPanel';
import { DOMAINS } from './scenario/domains';
import { scenarioHosts } from './scenario/hosts';
import { clientZone } from './scenario/zones';

const hosts = scenarioHosts('');
const ZONES = ['lighthouse-museum.example.', 'seed-library.example.', 'allotment-society.example.'];
/** Beside the demo's records, so that each zone has twenty sets and more. */
const MORE = [
  'ftp CNAME www',
  'shop A 203.0.113.60',
  'shop A 203.0.113.61',
  'shop AAAA 2001:db8:60::1',
  '_sips._tcp SRV 10 20 5061 voice.brinepost.example.',
  'news CNAME letters.brinepost.example.',
  'lists MX 10 mx1.brinepost.example.',
  'lists MX 20 mx2.brinepost.example.',
  'depot NS ns1.depot.example.',
  '@ CAA 0 issue "certs.example"',
  'note TXT "one \\"quoted\\" word; and a semicolon"',
  `long._domainkey TXT "v=DKIM1; p=${'MIIBIjANBgkqhkiG9w0BAQEF'.repeat(9)}" "${'AAOCAQ8AMIIBCgKCAQEA'.repeat(8)}"`,
];

function foundIn(name: string): RRset[] {
  const domain = DOMAINS.find((one) => one.zone === name)!;
  return groupRecords(parseZoneFile(clientZone({ ...domain, extra: [...domain.extra.slice(0, 32), ...MORE] }), Name.parse(name)).records);
}

interface Row {
  readonly owner: string;
  readonly type: string;
  readonly found: RRsetText;
  readonly planned: RRsetText | undefined;
}

/** What has to stand in the panel: the zone carried, or with its website led elsewhere; without what this panel has no type for. */
function planOf(id: string, name: string, toWeb: boolean): Row[] {
  const found = foundIn(name);
  const newDns = { name: 'the panel', nameservers: [], addresses: [], aliasTarget: undefined, requires: [] };
  const [oldHost, newHost] = ['saltmarsh', 'larkspur'].map((one) => hosts.find((host) => host.id === one)!);
  const web = ({ name: of, addresses, aliasTarget }: NonNullable<typeof oldHost>) => ({ name: of, nameservers: [], addresses, aliasTarget, requires: [] });
  const rulings = proposeRulings(Name.parse(name), found, { oldWeb: [web(oldHost!)], newDns, newWeb: toWeb ? web(newHost!) : undefined });
  return rulings.flatMap((ruling): Row[] => {
    const { owner, type, found: stood, planned } = ruling;
    if (isHostsOwn(ruling) || owner.includes('\\') || type.startsWith('TYPE') || PANELS[id]!.lacks.includes(type)) return [];
    return [{ owner, type, found: stood!, planned: planned && { ...planned, ttl: 300 } }];
  });
}

const empty = (name: string): AuthZone =>
  new AuthZone(Name.parse(name), parseZoneFile('@ 60 SOA ns1 host 1 60 60 60 60\n@ 60 NS ns1.panel.example.\n', Name.parse(name)).records);
const asTyped = (entry: Entry): Typed => ({
  name: entry.name,
  type: entry.type,
  priority: entry.priority ?? '',
  value: entry.value,
  ttl: entry.ttl ?? '300',
});

/** What somebody does with a row of the sheet: the changed thing is typed, or it is left out. */
type Slip = (typed: Typed, act: 'delete' | 'edit' | 'add') => Typed | 'leave it' | 'add it beside';

/** A stand-in person: does what stands in the sheet, to the letter; `slip` is what goes wrong with one of the rows. */
function typeSheet(id: string, name: string, toWeb: boolean, slip: Slip = (typed) => typed): AuthZone {
  const habits = PANELS[id]!;
  const zone = empty(name);
  if (toWeb) for (const set of foundIn(name)) if (!['SOA'].includes(typeMnemonic(set.type))) zone.put(set.owner, set.type, set.ttl, set.data);
  const sets = planOf(id, name, toWeb).map(({ owner, type, found, planned }): SheetSet => ({ owner, type, there: toWeb ? found : undefined, planned }));
  const deleted = (entry: Entry): void => {
    // The row that a person finds in the list is the one that typing it would make.
    const scratch = empty(name);
    add(habits, scratch, asTyped(entry));
    const set = scratch
      .all()
      .find((one) => one.type === typeCode(entry.type) && !['SOA'].includes(entry.type) && (entry.type !== 'NS' || !one.owner.equals(scratch.origin)))!;
    remove(zone, set.owner.toString(), entry.type, printRdata(set.type, set.data[0]!));
  };
  for (const { act, before, entry } of sheetOf(hosts.find((one) => one.id === id)!.entry!, name, sets)) {
    const done = slip(asTyped(entry ?? before!), act);
    if (done === 'leave it') continue;
    if (before && done !== 'add it beside') deleted(before);
    if (entry) add(habits, zone, done === 'add it beside' ? asTyped(entry) : done);
  }
  return zone;
}

/** Each set that is not served as planned, with the slip that explains it. */
function readBack(id: string, name: string, toWeb: boolean, zone: AuthZone): Record<string, string> {
  const answers = new ZoneAnswers(Name.parse(name), zone.all());
  const ask = (owner: string, type: string): string[] => {
    const at = Name.parse(owner);
    const found = answers.ask(at, typeCode(type)!);
    const own = [...found.answers, ...(found.referral ? [found.referral, ...found.glue] : [])].find(
      (set) => set.type === typeCode(type) && set.owner.equals(at),
    );
    return own ? textsOf(own) : [];
  };
  const plan = planOf(id, name, toWeb);
  const rows = plan.map(({ owner, type, planned }) => ({ owner, type, planned: [...(planned?.data ?? [])].sort() }));
  const told: Record<string, string> = {};
  for (const { owner, type, found } of plan) {
    const planned = rows.find((row) => row.owner === owner && row.type === type)!.planned;
    const served = ask(owner, type);
    if (planned.join('\n') === served.join('\n')) continue;
    const instead = askedInstead({ owner, type, zone: name }).map((one) => `${one.owner} ${one.type}`);
    const elsewhere = (at: string, as: string): string[] | undefined =>
      instead.includes(`${at} ${as}`) || rows.some((row) => row.owner === at && row.type === as) ? ask(at, as) : undefined;
    const stood = toWeb ? [...found.data].sort() : [];
    told[`${owner} ${type}`] = recordSlip({ zone: name, owner, type, planned, served, found: stood, elsewhere, rows, isFront: () => false })?.code ?? 'none';
  }
  return told;
}

const NAME = 'seed-library.example.';

describe.each(Object.keys(PANELS))('the panel of %s', (id) => {
  const habits = PANELS[id]!;
  /** Where quotes are not taken, a text that stood in two short parts stands in one: its readers join them (RFC 6376 §3.6.2.2). */
  const split = (of: string): Record<string, string> => ({
    ...(habits.quotes === 'taken' ? {} : { [`tide._domainkey.${of} TXT`]: 'text split' }),
    ...(habits.quotes === 'text' ? { [`long._domainkey.${of} TXT`]: 'text split' } : {}),
  });

  it.each(ZONES)('holds %s as planned once its sheet is typed to the letter, and once its website is led elsewhere by sheet', (name) => {
    const count = planOf(id, name, false).length;
    expect(count).toBeGreaterThanOrEqual(20);
    expect(count).toBeLessThanOrEqual(60);
    expect(readBack(id, name, false, typeSheet(id, name, false))).toEqual(split(name));
    expect(readBack(id, name, true, typeSheet(id, name, true))).toEqual({});
  });

  // Names whole or below the domain, as the panel wants them.
  const whole = hosts.find((one) => one.id === id)!.entry!.names === 'whole';
  const row =
    (type: string, start: string, to: (typed: Typed) => ReturnType<Slip>): Slip =>
    (typed) =>
      typed.type === type && `${typed.name}.`.startsWith(`${start}.`) ? to(typed) : typed;
  const apexName = (typed: Typed): boolean => typed.name === (habits.apex ?? NAME.slice(0, -1));
  const apex =
    (type: string, to: (typed: Typed, act: 'delete' | 'edit' | 'add') => ReturnType<Slip>): Slip =>
    (typed, act) =>
      typed.type === type && apexName(typed) ? to(typed, act) : typed;
  const cut = (typed: Typed): Typed => ({ ...typed, value: habits.quotes === 'taken' ? '"v=DKIM1; k=rsa; p=MIGf"' : 'v=DKIM1; k=rsa; p=MIGf' });
  const cases: [string, string, string, Slip][] = [
    ['never saved', `swap.${NAME} A`, 'not there', row('A', 'swap', () => 'leave it')],
    ['misspelt', `news.${NAME} CNAME`, 'misspelt', row('CNAME', 'news', (typed) => ({ ...typed, value: typed.value.replace('letters', 'lettres') }))],
    [
      'saved as another type',
      `news.${NAME} CNAME`,
      'other type',
      row('CNAME', 'news', (typed) => ({ ...typed, type: 'TXT', value: habits.quotes === 'taken' ? `"${typed.value}"` : typed.value })),
    ],
    ['whose number was not changed', `${NAME} MX`, 'number', apex('MX', (typed) => ({ ...typed, value: typed.value.replace('mx2', 'mx3') }))],
    ['cut off', `tide._domainkey.${NAME} TXT`, 'text cut', row('TXT', 'tide._domainkey', cut)],
  ];
  if (habits.appends === 'always')
    cases.push([
      'with the name typed whole',
      `swap.${NAME} A`,
      'name appended',
      row('A', 'swap', (typed) => ({ ...typed, name: `swap.${NAME.slice(0, -1)}` })),
    ]);
  if (habits.quotes !== 'taken')
    cases.push(['with quotes', `_mta-sts.${NAME} TXT`, 'quotes stored', row('TXT', '_mta-sts', (typed) => ({ ...typed, value: `"${typed.value}"` }))]);
  if (habits.dot === 'needed')
    cases.push([
      'without the dot',
      `news.${NAME} CNAME`,
      'target gained the zone',
      row('CNAME', 'news', (typed) => ({ ...typed, value: typed.value.replace(/\.$/, '') })),
    ]);
  it.each(cases)('a record %s is read back with that slip', (_what, at, code, slip) => {
    expect(readBack(id, NAME, false, typeSheet(id, NAME, false, slip))).toEqual({ ...split(NAME), [at]: code });
  });

  it.each<[string, Record<string, string>, Slip]>([
    [
      'nothing was saved',
      { [`${NAME} A`]: 'not saved', [`${NAME} AAAA`]: 'not saved', [`www.${NAME} CNAME`]: 'not saved' },
      (typed, act) => (act === 'edit' && !/^(catalogue|mta-sts|swap)/.test(typed.name) ? 'leave it' : typed),
    ],
    ['the old address stays beside the new', { [`${NAME} A`]: 'left beside' }, apex('A', (_typed, act) => (act === 'edit' ? 'add it beside' : 'leave it'))],
    ['only the apex is changed', { [`www.${NAME} CNAME`]: 'one spelling' }, row('CNAME', 'www', () => 'leave it')],
  ])('where its website is led elsewhere and %s, that is said', (_what, expected, slip) => {
    expect(readBack(id, NAME, true, typeSheet(id, NAME, true, slip))).toEqual(expected);
  });

  it('locks nothing but what is its own, and says what it refuses', () => {
    const zone = typeSheet(id, NAME, false);
    const name = whole ? 'swap.seed-library.example' : 'swap';
    const typed = { name, type: 'CNAME', priority: '', value: habits.dot === 'needed' ? 'a.example.' : 'a.example', ttl: '300' };
    expect(() => add(habits, zone, typed)).toThrow(/beside other records/);
    remove(zone, 'swap.seed-library.example.', 'A', '198.51.100.80');
    expect(zone.get(Name.parse('swap.seed-library.example.'), 1)).toBeUndefined();
    expect(() => remove(zone, 'swap.seed-library.example.', 'A', '198.51.100.80')).toThrow(/not there any more/);
    for (const type of habits.lacks) expect(() => add(habits, zone, { ...typed, type })).toThrow(/no type/);
  });
});
