import {
  Name,
  RRset,
  SheetSet,
  USUAL_STYLE,
  ZoneAnswers,
  askedInstead,
  isHostsOwn,
  parseZoneFile,
  proposeRulings,
  groupRecords,
  recordSlip,
  rrsetToText,
  sheetOf,
  textsOf,
  typeCode,
} from '@wanderon/core';
import { AuthZone } from './authZone';
import { PANELS, Typed, add, remove } from './handPanel';
import { DOMAINS, clientZone, scenarioHosts } from './scenario';

const hosts = scenarioHosts('');
const ZONES = ['lighthouse-museum.example.', 'seed-library.example.', 'allotment-society.example.'];
/** What these panels cannot hold: types that they do not list. */
const HELD = new Set(['A', 'AAAA', 'CNAME', 'MX', 'TXT', 'SRV', 'CAA', 'NS', 'TLSA']);

function planOf(name: string): RRset[] {
  const zone = Name.parse(name);
  const domain = DOMAINS.find((one) => one.zone === name)!;
  const found = groupRecords(parseZoneFile(clientZone({ ...domain, extra: domain.extra.slice(0, 45) }), zone).records);
  const newDns = { name: 'the panel', nameservers: [], addresses: [], aliasTarget: undefined, requires: [] };
  const rulings = proposeRulings(zone, found, { oldWeb: [], newDns, newWeb: undefined });
  return found.filter((set) => {
    const text = rrsetToText(set);
    const ruling = rulings.find((one) => one.owner === text.owner && one.type === text.type)!;
    return !isHostsOwn(ruling) && HELD.has(text.type) && !text.owner.includes('\\');
  });
}

const empty = (name: string): AuthZone =>
  new AuthZone(Name.parse(name), parseZoneFile('@ 60 SOA ns1 host 1 60 60 60 60\n@ 60 NS ns1.panel.example.\n', Name.parse(name)).records);

/** A stand-in person: types what stands in the sheet, to the letter; `slip` is what goes wrong with one of the rows. */
function typeSheet(id: string, name: string, slip: (typed: Typed) => Typed | undefined = (typed) => typed): AuthZone {
  const zone = empty(name);
  const style = hosts.find((one) => one.id === id)!.entry ?? USUAL_STYLE;
  const sets = planOf(name).map((set): SheetSet => {
    const planned = rrsetToText(set);
    return { owner: planned.owner, type: planned.type, there: undefined, planned: { ...planned, ttl: 300 } };
  });
  for (const { entry } of sheetOf(style, name, sets)) {
    const typed = slip({ name: entry!.name, type: entry!.type, priority: entry!.priority ?? '', value: entry!.value, ttl: entry!.ttl ?? '300' });
    if (typed) add(PANELS[id]!, zone, typed);
  }
  return zone;
}

/** Each set that is not served as planned, with the slip that explains it. */
function readBack(name: string, zone: AuthZone): Record<string, string> {
  const answers = new ZoneAnswers(Name.parse(name), zone.all());
  const ask = (owner: string, type: string): string[] => {
    const at = Name.parse(owner);
    const found = answers.ask(at, typeCode(type)!);
    const own = [...found.answers, ...(found.referral ? [found.referral, ...found.glue] : [])].find(
      (set) => set.type === typeCode(type) && set.owner.equals(at),
    );
    return own ? textsOf(own) : [];
  };
  const plan = planOf(name);
  const rows = plan.map((set) => rrsetToText(set)).map(({ owner, type, data }) => ({ owner, type, planned: data }));
  const told: Record<string, string> = {};
  for (const set of plan) {
    const { owner, type } = rrsetToText(set);
    const [planned, served] = [textsOf(set), ask(owner, type)];
    if (planned.join('\n') === served.join('\n')) continue;
    const instead = askedInstead({ owner, type, zone: name }).map((one) => `${one.owner} ${one.type}`);
    const elsewhere = (at: string, as: string): string[] | undefined =>
      instead.includes(`${at} ${as}`) || rows.some((row) => row.owner === at && row.type === as) ? ask(at, as) : undefined;
    told[`${owner} ${type}`] = recordSlip({ zone: name, owner, type, planned, served, found: [], elsewhere, rows, isFront: () => false })?.code ?? 'none';
  }
  return told;
}

describe.each(Object.keys(PANELS))('the panel of %s', (id) => {
  // A panel that takes no quotes joins the parts of a text: its readers do so too (RFC 6376 §3.6.2.2).
  const split = (of: string): Record<string, string> => (PANELS[id]!.quotes ? {} : { [`tide._domainkey.${of} TXT`]: 'text split' });
  it.each(ZONES)('holds %s as planned once its sheet is typed to the letter', (name) => {
    expect(planOf(name).length).toBeGreaterThan(11);
    expect(readBack(name, typeSheet(id, name))).toEqual(split(name));
  });

  const name = 'seed-library.example.';
  const only = (type: string, start: string, to: (typed: Typed) => Typed | undefined) => (typed: Typed) =>
    typed.type === type && `${typed.name}.`.startsWith(start) ? to(typed) : typed;
  const appends = PANELS[id]!.appends;
  it.each<[string, string, string, (typed: Typed) => Typed | undefined]>([
    ['never saved', `swap.${name} A`, 'not there', only('A', 'swap', () => undefined)],
    ['misspelt', `catalogue.${name} CNAME`, 'misspelt', only('CNAME', 'catalogue', (typed) => ({ ...typed, value: typed.value.replace('sites', 'sties') }))],
    [
      'saved as another type',
      `catalogue.${name} CNAME`,
      'other type',
      only('CNAME', 'catalogue', (typed) => ({ ...typed, type: 'TXT', value: PANELS[id]!.quotes ? `"${typed.value}"` : typed.value })),
    ],
    ['a number not changed', `${name} MX`, 'number', only('MX', '', (typed) => ({ ...typed, value: typed.value.replace('mx2', 'mx3') }))],
    [
      'cut off',
      `tide._domainkey.${name} TXT`,
      'text cut',
      only('TXT', 'tide', (typed) => ({ ...typed, value: PANELS[id]!.quotes ? '"v=DKIM1; k=rsa; p=MIGf"' : 'v=DKIM1; k=rsa; p=MIGf' })),
    ],
    ...(appends
      ? ([
          ['with the name typed whole', `swap.${name} A`, 'name appended', only('A', 'swap', (typed) => ({ ...typed, name: `swap.${name.slice(0, -1)}` }))],
          ['with quotes', `_mta-sts.${name} TXT`, 'quotes stored', only('TXT', '_mta-sts', (typed) => ({ ...typed, value: `"${typed.value}"` }))],
        ] as [string, string, string, (typed: Typed) => Typed][])
      : ([
          [
            'without the dot',
            `catalogue.${name} CNAME`,
            'target gained the zone',
            only('CNAME', 'catalogue', (typed) => ({ ...typed, value: typed.value.slice(0, -1) })),
          ],
        ] as [string, string, string, (typed: Typed) => Typed][])),
  ])('a record %s is read back with that slip', (_what, at, code, slip) => {
    const told = readBack(name, typeSheet(id, name, slip));
    expect(told).toEqual({ ...split(name), [at]: code });
  });

  it('locks nothing but what is its own, and says what it refuses', () => {
    const zone = typeSheet(id, name);
    const typed = { name: appends ? 'swap' : 'swap.seed-library.example', type: 'CNAME', priority: '', value: 'a.example', ttl: '300' };
    expect(() => add(PANELS[id]!, zone, typed)).toThrow(/beside other records/);
    remove(zone, 'swap.seed-library.example.', 'A', '198.51.100.80');
    expect(zone.get(Name.parse('swap.seed-library.example.'), 1)).toBeUndefined();
    expect(() => remove(zone, 'swap.seed-library.example.', 'A', '198.51.100.80')).toThrow(/not there any more/);
  });
});
