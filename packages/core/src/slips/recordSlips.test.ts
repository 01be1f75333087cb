import fc from 'fast-check';
import { Name } from '../dns/name';
import { RRset, groupRecords, rrsetFromText } from '../dns/record';
import { typeCode } from '../dns/typeNames';
import { ZoneAnswers } from '../dns/zoneAnswers';
import { parseZoneFile } from '../dns/zoneFile';
import { textsOf } from '../timetable/wanted';
import { askedInstead, recordSlip, recordSlips } from './recordSlips';

const ZONE = 'choir.example.';

interface Planned {
  readonly owner: string;
  readonly type: string;
  readonly data: readonly string[];
}
const row = (owner: string, type: string, ...data: string[]): Planned => ({ owner, type, data });
const KEY = `v=DKIM1; k=rsa; p=${'MIGfMA0GCSqGSIb3'.repeat(20)}`;
const HALVES = `"${KEY.slice(0, 255)}" "${KEY.slice(255)}"`;

const PLAN: readonly Planned[] = [
  row(ZONE, 'A', '203.0.113.80'),
  row(ZONE, 'MX', '10 mx1.post.example.', '20 mx2.post.example.'),
  row(ZONE, 'TXT', '"v=spf1 include:spf.post.example -all"'),
  row(`www.${ZONE}`, 'CNAME', 'edge.thornwick.example.'),
  row(`mail.${ZONE}`, 'CNAME', `web.${ZONE}`),
  row(`web.${ZONE}`, 'A', '203.0.113.81'),
  row(`tide._domainkey.${ZONE}`, 'TXT', HALVES),
  row(`_sip._tcp.${ZONE}`, 'SRV', '10 20 5060 voice1.post.example.'),
  row(`_sips._tcp.${ZONE}`, 'SRV', '10 20 5061 voice2.post.example.'),
];
const FOUND: readonly Planned[] = [row(ZONE, 'A', '192.0.2.80'), row(`www.${ZONE}`, 'CNAME', 'sites.saltmarsh.example.')];

/**
 * A stand-in panel and the person at it: what ends up in the zone, as lines of a zone file, written without the code that is tried.
 * `slip` alters the lines of the plan as that slip would.
 */
function typed(alter: (lines: string[]) => string[]): RRset[] {
  const lines = PLAN.flatMap(({ owner, type, data }) => data.map((one) => `${owner} 300 ${type} ${one}`));
  const text = `${ZONE} 300 SOA ns1.quillmere.example. host.quillmere.example. 1 60 60 600 60\n${ZONE} 300 NS ns1.quillmere.example.\n${alter(lines).join('\n')}\n`;
  const { records, findings } = parseZoneFile(text, Name.parse(ZONE));
  expect(findings.filter((one) => one.severity === 'error')).toEqual([]);
  return groupRecords(records);
}

/** What is read back of a zone, question by question; the slip of each row that is not as planned, by owner and type. */
function read(sets: readonly RRset[], found: readonly Planned[] = []): Record<string, string> {
  const zone = new ZoneAnswers(Name.parse(ZONE), sets);
  const ask = (owner: string, type: string): string[] => {
    const own = zone.ask(Name.parse(owner), typeCode(type)!).answers.find((set) => set.type === typeCode(type) && set.owner.equals(Name.parse(owner)));
    return own ? textsOf(own) : [];
  };
  const told: Record<string, string> = {};
  const rows = PLAN.map(({ owner, type, data }) => ({ owner, type, planned: data }));
  for (const { owner, type, data } of PLAN) {
    const planned = textsOf(rrsetFromText({ owner, type, ttl: 0, data: [...data] }));
    const served = ask(owner, type);
    if (served.join() === planned.join()) continue;
    const before = found.find((one) => one.owner === owner && one.type === type)?.data ?? [];
    // Only what is really asked is known: the planned sets, and what is asked instead.
    const instead = askedInstead({ owner, type, zone: ZONE }).map((one) => `${one.owner} ${one.type}`);
    const elsewhere = (at: string, as: string): string[] | undefined =>
      instead.includes(`${at} ${as}`) || PLAN.some((one) => one.owner === at && one.type === as) ? ask(at, as) : undefined;
    const slip = recordSlip({ zone: ZONE, owner, type, planned, served, found: before, elsewhere, rows, isFront: (one) => one.startsWith('198.18.7.') });
    told[`${owner} ${type}`] = slip ? slip.code : 'none';
  }
  return told;
}

const change = (start: string, to: (line: string) => string | string[]) => (lines: string[]) =>
  lines.flatMap((line) => (line.startsWith(start) ? to(line) : line));

describe('a record as somebody typed it', () => {
  it('is as planned where it was typed rightly', () => {
    expect(read(typed((lines) => lines))).toEqual({});
  });

  it.each<[string, string, string, (lines: string[]) => string[]]>([
    [
      'the panel appended the zone to a whole name',
      `www.${ZONE} CNAME`,
      'name appended',
      change(`www.${ZONE}`, (line) => line.replace(`www.${ZONE}`, `www.${ZONE}${ZONE}`)),
    ],
    ['the same at the apex', `${ZONE} A`, 'name appended', change(`${ZONE} 300 A`, (line) => line.replace(ZONE, `${ZONE}${ZONE}`))],
    ['the target had no dot', `www.${ZONE} CNAME`, 'target gained the zone', change(`www.${ZONE}`, (line) => `${line}${ZONE}`)],
    ['so had the target of a mail record', `${ZONE} MX`, 'target gained the zone', change(`${ZONE} 300 MX 10`, (line) => `${line}${ZONE}`)],
    [
      'a short target was taken for a whole name',
      `mail.${ZONE} CNAME`,
      'target lost the zone',
      change(`mail.${ZONE}`, (line) => line.replace(`CNAME web.${ZONE}`, 'CNAME web.')),
    ],
    [
      'quotes were typed where none are wanted',
      `${ZONE} TXT`,
      'quotes stored',
      change(`${ZONE} 300 TXT`, () => `${ZONE} 300 TXT "\\"v=spf1 include:spf.post.example -all\\""`),
    ],
    [
      'quoted halves were typed into a field for bare text',
      `tide._domainkey.${ZONE} TXT`,
      'quotes stored',
      change('tide', () => `tide._domainkey.${ZONE} 300 TXT ${JSON.stringify(HALVES).slice(0, 256)}" "${JSON.stringify(HALVES).slice(256)}`),
    ],
    ['the text was cut at 255', `tide._domainkey.${ZONE} TXT`, 'text cut', change('tide', () => `tide._domainkey.${ZONE} 300 TXT "${KEY.slice(0, 255)}"`)],
    [
      'the text is split elsewhere',
      `tide._domainkey.${ZONE} TXT`,
      'text split',
      change('tide', () => `tide._domainkey.${ZONE} 300 TXT "${KEY.slice(0, 100)}" "${KEY.slice(100)}"`),
    ],
    [
      'a blank came in where the parts meet',
      `tide._domainkey.${ZONE} TXT`,
      'text with blanks',
      change('tide', () => `tide._domainkey.${ZONE} 300 TXT "${KEY.slice(0, 250)} " "${KEY.slice(250)}"`),
    ],
    ['the priority was typed into the value', `${ZONE} MX`, 'priority inside', change(`${ZONE} 300 MX 10`, () => `${ZONE} 300 MX 0 10\\032mx1.post.example.`)],
    ['the same, and the zone appended', `${ZONE} MX`, 'priority inside', change(`${ZONE} 300 MX 10`, () => `${ZONE} 300 MX 0 10\\ mx1.post.example.${ZONE}`)],
    ['an alias was saved as text', `www.${ZONE} CNAME`, 'other type', change(`www.${ZONE}`, () => `www.${ZONE} 300 TXT "edge.thornwick.example"`)],
    ['a text was saved as an alias', `mail.${ZONE} CNAME`, 'other type', change(`mail.${ZONE}`, () => `mail.${ZONE} 300 TXT "web.choir.example."`)],
    [
      'the name was typed with two letters exchanged',
      `www.${ZONE} CNAME`,
      'misspelt',
      change(`www.${ZONE}`, () => `www.${ZONE} 300 CNAME egde.thornwick.example.`),
    ],
    ['a number was not changed', `_sips._tcp.${ZONE} SRV`, 'number', change('_sips', () => `_sips._tcp.${ZONE} 300 SRV 10 20 5060 voice1.post.example.`)],
    ['the value of the row beside it', `web.${ZONE} A`, 'value of another', change('web.', () => `web.${ZONE} 300 A 203.0.113.80`)],
    ['fronting was left on', `${ZONE} A`, 'fronted', change(`${ZONE} 300 A`, () => [`${ZONE} 300 A 198.18.7.1`, `${ZONE} 300 A 198.18.7.2`])],
    ['it was never saved', `web.${ZONE} A`, 'not there', change('web.', () => [])],
  ])('%s', (_what, at, code, alter) => {
    expect(read(typed(alter))[at]).toBe(code);
  });

  it('is held against what stood there before, where records change in place', () => {
    const at = (alter: (lines: string[]) => string[]): Record<string, string> => read(typed(alter), FOUND);
    expect(at(change(`${ZONE} 300 A`, (line) => [line, `${ZONE} 300 A 192.0.2.80`]))).toEqual({ [`${ZONE} A`]: 'left beside' });
    const www = change(`www.${ZONE}`, () => `www.${ZONE} 300 CNAME sites.saltmarsh.example.`);
    expect(at(www)).toEqual({ [`www.${ZONE} CNAME`]: 'one spelling' });
    const apex = change(`${ZONE} 300 A`, () => `${ZONE} 300 A 192.0.2.80`);
    expect(at(apex)).toEqual({ [`${ZONE} A`]: 'one spelling' });
    expect(at((lines) => www(apex(lines)))).toEqual({ [`${ZONE} A`]: 'not saved', [`www.${ZONE} CNAME`]: 'not saved' });
  });

  it('is explained by no slip where somebody meant something else', () => {
    expect(read(typed(change(`www.${ZONE}`, () => `www.${ZONE} 300 CNAME shop.fennel.example.`)))).toEqual({ [`www.${ZONE} CNAME`]: 'none' });
  });
});

describe('what a hostile server answers', () => {
  const base = { zone: ZONE, owner: `www.${ZONE}`, found: [], elsewhere: () => undefined, rows: [], isFront: () => false };
  it('is held against the plan in time that grows with its length', () => {
    const texts = [`"${'ab'.repeat(20_000)}"`, `"${'ba'.repeat(20_000)}"`];
    expect(recordSlips({ ...base, type: 'TXT', planned: [texts[0]!], served: [texts[1]!] })).toBeDefined();
    const many = Array.from({ length: 400 }, (_, index) => `192.0.2.${index % 250}${index}`);
    expect(recordSlips({ ...base, type: 'A', planned: ['192.0.2.1'], served: many }).length).toBeGreaterThan(0);
  });

  it('is held against a plan of thousands of rows, however many values it sends', () => {
    const rows = Array.from({ length: 5000 }, (_, index) => ({ owner: `n${index}.${ZONE}`, type: 'A', planned: [`203.0.113.${index % 250}`] }));
    const served = Array.from({ length: 4000 }, (_, index) => `192.0.${index % 250}.${Math.floor(index / 250)}1`);
    const planned = Array.from({ length: 12 }, (_, index) => `192.0.2.${index + 10}`);
    expect(recordSlips({ ...base, type: 'A', planned, served, rows }).length).toBeLessThan(60);
  });

  it('through a wildcard that nobody planned stands at no name', () => {
    const answers = (wildcard: readonly string[] | undefined): string | undefined =>
      recordSlip({
        ...base,
        type: 'CNAME',
        planned: ['edge.thornwick.example.'],
        served: [],
        elsewhere: (owner, type) => (type !== 'A' ? [] : owner === `www.${ZONE}` ? ['192.0.2.9'] : owner === `*.${ZONE}` ? wildcard : []),
      })?.code;
    expect([answers([]), answers(['192.0.2.9'])]).toEqual(['alias beside', 'not there']);
    expect(askedInstead({ owner: `www.${ZONE}`, type: 'CNAME', zone: ZONE }, 10)).toContainEqual({ owner: `*.${ZONE}`, type: 'A' });
  });

  it('never ends in an error, whatever stands in a value or a name', () => {
    const data = fc.oneof(
      fc.string({ maxLength: 60 }),
      fc.string({ unit: fc.constantFrom('\\', '"', '0', '1', ' ', '.', 'a', '\u200b', '&', ';', '%', '2', '/', ':'), maxLength: 40 }),
    );
    const type = fc.constantFrom('A', 'AAAA', 'CNAME', 'MX', 'TXT', 'SRV', 'CAA', 'TLSA', 'TYPE65280');
    fc.assert(
      fc.property(type, fc.array(data, { maxLength: 4 }), fc.array(data, { maxLength: 4 }), fc.array(data, { maxLength: 2 }), (of, planned, served, found) => {
        const slips = recordSlips({
          ...base,
          type: of,
          planned,
          served,
          found,
          elsewhere: () => served,
          rows: [{ owner: `*.${ZONE}`, type: of, planned: served }],
        });
        for (const { code, text } of slips) expect([typeof code, text.length > 0]).toEqual(['string', true]);
      }),
      { numRuns: 3000 },
    );
  });
});
