import fc from 'fast-check';
import { Name } from '../dns/name';
import { RRsetText, groupRecords, rrsetToText } from '../dns/record';
import { parseZoneFile } from '../dns/zoneFile';
import { Entry, enter, panelTtl } from './enter';
import { EntryStyle, KnownStyle, STYLE_APEX, STYLE_DOT, STYLE_LONG, STYLE_NAMES, STYLE_PRIORITY, STYLE_TEXT, USUAL_STYLE } from './entryStyle';
import { SheetSet, sheetOf } from './sheet';

const ZONE = 'choir.example.';
const set = (owner: string, type: string, ...data: string[]): RRsetText => ({ owner, type, ttl: 300, data });
const KEY = `v=DKIM1; p=${'MIGfMA0GCSqGSIb3"\\'.repeat(20)}`;
const quoted = (text: string): string => `"${text.replace(/["\\]/g, '\\$&')}"`;

const styles: fc.Arbitrary<EntryStyle> = fc.record({
  names: fc.constantFrom(...STYLE_NAMES),
  apex: fc.constantFrom(...STYLE_APEX),
  targetDot: fc.constantFrom(...STYLE_DOT),
  text: fc.constantFrom(...STYLE_TEXT),
  longText: fc.constantFrom(...STYLE_LONG),
  priority: fc.constantFrom(...STYLE_PRIORITY),
  ttls: fc.constantFrom<readonly number[] | null>(null, [], [60, 300, 3600], [1800]),
});

/**
 * A panel with these habits, written without the code that is tried: what it stores of what is typed, as a line of a zone file.
 * It does to the letter what such panels do: appends, takes dots for ends of names, takes quotes for text where it wants none.
 */
function stores(style: EntryStyle, { name, type, priority, value, ttl }: Entry): string {
  const appends = style.names === 'relative';
  const owner =
    name === '@' && style.apex === '@'
      ? ZONE
      : name === '' && style.apex === 'empty'
        ? ZONE
        : appends && !(style.apex === 'whole' && `${name}.` === ZONE)
          ? `${name}.${ZONE}`
          : `${name}.`;
  const seconds = ttl ?? '300';
  if (type === 'TXT') {
    const inParts = style.longText === 'parts' && value.length > 255 && value.startsWith('"');
    // Quotes are read as in a zone file; a text that is too long for one string is split by the panel itself.
    const text =
      style.text === 'quoted' || inParts ? [...value.matchAll(/"((?:[^"\\]|\\.)*)"/gs)].map((one) => one[1]!.replace(/\\(.)/gs, '$1')).join('') : value;
    return `${owner} ${seconds} TXT ${(text.match(/.{1,255}/gs) ?? ['']).map(quoted).join(' ')}`;
  }
  const words = [...(style.priority === 'own field' && priority !== undefined ? [priority] : []), ...value.split(' ')];
  if (['CNAME', 'MX', 'SRV', 'NS'].includes(type)) {
    const target = words.pop()!;
    if (style.targetDot === 'required') words.push(target.endsWith('.') ? target : `${target}.${ZONE}`);
    else if (style.targetDot === 'refused') {
      if (target.endsWith('.')) throw new Error(`the panel refuses ${target}`);
      words.push(`${target}.`);
    } else words.push(target.endsWith('.') ? target : `${target}.`);
  }
  return `${owner} ${seconds} ${type} ${words.join(' ')}`;
}

function zoneOf(lines: readonly string[]): Map<string, string[]> {
  const { records, findings } = parseZoneFile(`${lines.join('\n')}\n`, Name.parse(ZONE));
  expect(findings.filter((one) => one.severity === 'error' && one.code !== 'no-soa')).toEqual([]);
  return new Map(
    groupRecords(records)
      .map((one) => rrsetToText(one))
      .map(({ owner, type, data }): [string, string[]] => [`${owner} ${type}`, [...data].sort()]),
  );
}

const PLAN: readonly RRsetText[] = [
  set(ZONE, 'A', '203.0.113.80', '203.0.113.81'),
  set(ZONE, 'AAAA', '2001:db8::80'),
  set(ZONE, 'MX', '10 mx1.post.example.', '20 mx2.post.example.'),
  set(ZONE, 'TXT', '"v=spf1 include:spf.post.example -all"', '"proof=1"'),
  set(`www.${ZONE}`, 'CNAME', 'edge.thornwick.example.'),
  set(`shop.${ZONE}`, 'CNAME', ZONE),
  set(`tide._domainkey.${ZONE}`, 'TXT', `${quoted(KEY.slice(0, 255))} ${quoted(KEY.slice(255))}`),
  set(`_sip._tcp.${ZONE}`, 'SRV', '10 20 5060 voice.post.example.'),
  set(`dept.${ZONE}`, 'NS', 'ns1.dept.example.'),
  set(ZONE, 'CAA', '0 issue "certs.example"'),
];

describe('a sheet for a panel', () => {
  it('typed literally gives the plan, whatever the panel’s habits, from whatever stands there', () => {
    fc.assert(
      fc.property(styles, fc.array(fc.nat(3), { minLength: PLAN.length, maxLength: PLAN.length }), (style, before) => {
        // Not there, as planned, otherwise, or as planned and more.
        const there = (one: RRsetText, how: number): RRsetText | undefined =>
          how === 0
            ? undefined
            : how === 1
              ? one
              : how === 2
                ? { ...one, data: one.data.map(otherwise(one.type)) }
                : { ...one, data: [...one.data, ...one.data.map(otherwise(one.type))] };
        const single = (one: RRsetText, how: number): number => (one.type === 'CNAME' && how === 3 ? 2 : how);
        const sets = PLAN.map((planned, index): SheetSet => ({
          owner: planned.owner,
          type: planned.type,
          there: there(planned, single(planned, before[index]!)),
          planned,
        }));
        // The panel holds what stands there; the person deletes, edits and adds as the sheet says.
        const held = sets.flatMap((one) => (one.there ? enter(style, ZONE, one.there) : []));
        for (const row of sheetOf(style, ZONE, sets)) {
          if (row.before) {
            const at = held.findIndex(
              (one) =>
                one.type === row.before!.type && one.name === row.before!.name && one.value === row.before!.value && one.priority === row.before!.priority,
            );
            expect(at).toBeGreaterThanOrEqual(0);
            held.splice(at, 1);
          }
          if (row.entry) held.push(row.entry);
        }
        const typed = zoneOf(held.map((one) => stores(style, one)));
        for (const { owner, type } of PLAN) {
          const text = (all: readonly string[]): string[] => (type === 'TXT' ? all.map((one) => one.replace(/" "/g, '')).sort() : [...all].sort());
          expect([`${owner} ${type}`, text(typed.get(`${owner} ${type}`) ?? [])]).toEqual([
            `${owner} ${type}`,
            text(zoneOf(PLAN.flatMap((one) => one.data.map((d) => `${one.owner} 300 ${one.type} ${d}`))).get(`${owner} ${type}`)!),
          ]);
        }
        expect(typed.size).toBe(PLAN.length);
      }),
      { numRuns: 300 },
    );
  });

  it('deletes before it edits, and adds last, so that an alias never stands beside an address', () => {
    const rows = sheetOf(USUAL_STYLE, ZONE, [
      { owner: `www.${ZONE}`, type: 'CNAME', there: undefined, planned: set(`www.${ZONE}`, 'CNAME', 'edge.thornwick.example.') },
      { owner: `www.${ZONE}`, type: 'A', there: set(`www.${ZONE}`, 'A', '192.0.2.80'), planned: undefined },
      { owner: ZONE, type: 'A', there: set(ZONE, 'A', '192.0.2.80'), planned: set(ZONE, 'A', '203.0.113.80') },
    ]);
    expect(rows.map(({ act, before, entry }) => [act, before?.value, entry?.value])).toEqual([
      ['delete', '192.0.2.80', undefined],
      ['edit', '192.0.2.80', '203.0.113.80'],
      ['add', undefined, 'edge.thornwick.example'],
    ]);
  });

  it('leaves alone what is as planned, and chooses a TTL from the list', () => {
    const same = { owner: ZONE, type: 'A', there: set(ZONE, 'A', '192.0.2.80'), planned: { ...set(ZONE, 'A', '192.0.2.80'), ttl: 60 } };
    expect(sheetOf(USUAL_STYLE, ZONE, [same])).toEqual([]);
    const ttl = (ttls: readonly number[] | null, seconds: number): string | undefined =>
      enter({ ...USUAL_STYLE, ttls }, ZONE, { ...set(ZONE, 'A', '192.0.2.80'), ttl: seconds })[0]!.ttl;
    expect([ttl([], 300), ttl([60, 3600], 300), ttl([600, 3600], 300), ttl(null, 300)]).toEqual(['300', '60', '600', undefined]);
    expect([60, 600, 900].map((one) => panelTtl({ ttls: [], leastTtl: 600 }, one))).toEqual([600, 600, 900]);
  });
});

function otherwise(type: string): (data: string, index: number) => string {
  return (_data, index) => {
    if (type === 'A') return `192.0.2.${index + 1}`;
    if (type === 'AAAA') return `2001:db8:5::${index + 1}`;
    if (type === 'TXT') return `"old text ${index}"`;
    if (type === 'MX') return `${5 + index} old.post.example.`;
    if (type === 'SRV') return `1 1 ${5000 + index} old.post.example.`;
    if (type === 'CAA') return `0 issuewild "old${index}.example"`;
    return `old${index}.example.`;
  };
}

describe('a panel of which nobody has said how it wants names', () => {
  const sets: SheetSet[] = [
    { owner: ZONE, type: 'A', there: undefined, planned: set(ZONE, 'A', '192.0.2.80') },
    { owner: `www.${ZONE}`, type: 'CNAME', there: undefined, planned: set(`www.${ZONE}`, 'CNAME', 'edge.host.test.') },
    { owner: ZONE, type: 'MX', there: undefined, planned: set(ZONE, 'MX', '10 mx.post.test.') },
  ];
  const forms = (known: KnownStyle | null): unknown[] =>
    sheetOf(known, ZONE, sets).map(({ entry, whole }) => [entry!.name, entry!.value, whole?.name, whole?.value]);

  it('has the plain form and the whole one in each row', () =>
    expect(forms(null)).toEqual([
      ['@', '192.0.2.80', ZONE, undefined],
      ['www', 'edge.host.test', `www.${ZONE}`, 'edge.host.test.'],
      ['@', 'mx.post.test', ZONE, '10 mx.post.test.'],
    ]));

  it('has one form of what is known', () => {
    expect(forms({ names: 'relative' })[1]).toEqual(['www', 'edge.host.test', undefined, 'edge.host.test.']);
    expect(forms({ names: 'whole', targetDot: 'required' })[1]).toEqual([`www.${ZONE.slice(0, -1)}`, 'edge.host.test.', undefined, undefined]);
  });
});
