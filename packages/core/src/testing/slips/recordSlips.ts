import { rrsetFromText } from '../../dns/record';
import { textsOf } from '../../timetable/wanted';
import { Random } from '../texts/random';

export interface PlannedRow {
  readonly owner: string;
  readonly type: string;
  readonly planned: readonly string[];
}

/** A zone as somebody typed it into a panel, and what they did to one set of it: made without the code that is to tell it. */
export interface TypedZone {
  readonly zone: string;
  readonly rows: readonly PlannedRow[];
  /** What stood there before, where records change in place. */
  readonly found: ReadonlyMap<string, readonly string[]>;
  /** What the host has now, by `owner type`. */
  readonly stored: ReadonlyMap<string, readonly string[]>;
  readonly owner: string;
  readonly type: string;
  /** Each slip: under which codes it may be told, and what has to stand in the sentence. Empty: nothing explains it. */
  readonly truth: readonly { readonly kind: string; readonly codes: readonly string[]; readonly says: string }[];
}

const HOSTS = ['quillmere', 'thornwick', 'pebbledock', 'saltmarsh', 'driftwood', 'millrace'];
const keyOf = (owner: string, type: string): string => `${owner} ${type}`;
const plain = (name: string): string => name.replace(/\.$/, '');

/** As a server answers it: through the wire and back. */
const asServed = (owner: string, type: string, data: readonly string[]): string[] => textsOf(rrsetFromText({ owner, type, ttl: 300, data: [...data] }));

/** Characters of a name that are typed as they are: octets beside letters, digits, hyphens and underscores as a zone file writes them. */
function asLabels(text: string): string {
  return [...text]
    .map((character) => {
      if (/[A-Za-z0-9._-]/.test(character)) return character;
      return [
        ...encodeURIComponent(character).replace(/%([0-9A-F]{2})|(.)/g, (_all, hex?: string, one?: string) =>
          String.fromCharCode(hex ? parseInt(hex, 16) : one!.charCodeAt(0)),
        ),
      ]
        .map((octet) => `\\${String(octet.charCodeAt(0)).padStart(3, '0')}`)
        .join('');
    })
    .join('');
}

/** A text as it is typed, in strings of at most 255 octets. */
function asText(text: string): string {
  const octets = [...encodeURIComponent(text).replace(/%([0-9A-F]{2})/g, (_all, hex: string) => String.fromCharCode(parseInt(hex, 16)))];
  const parts: string[] = [];
  for (let at = 0; at < octets.length || parts.length === 0; at += 255)
    parts.push(
      `"${octets
        .slice(at, at + 255)
        .map((one) => (/[ -~]/.test(one) && !/["\\]/.test(one) ? one : `\\${String(one.charCodeAt(0)).padStart(3, '0')}`))
        .join('')}"`,
    );
  return parts.join(' ');
}

const base64 = (random: Random, length: number): string =>
  Array.from({ length }, () => 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/'[random.below(64)]).join('');

const address = (random: Random): string =>
  `${random.pick(['192.0.2', '198.51.100', '203.0.113'])}.${random.pick([12, 23, 34, 45, 56, 67, 78, 89, 120, 134, 145, 201, 214])}`;

function planOf(random: Random, zone: string): PlannedRow[] {
  const [host, other] = random.shuffled(HOSTS);
  const rows: PlannedRow[] = [];
  const row = (owner: string, type: string, ...planned: string[]): void => void rows.push({ owner, type, planned: asServed(owner, type, planned) });
  const at = (name: string): string => `${name}.${zone}`;
  row(zone, 'A', address(random));
  row(at('www'), 'CNAME', `${random.pick(['edge', 'sites', 'web-7'])}.${host}.example.`);
  row(zone, 'MX', `10 mx1.${other}.example.`, `20 mx2.${other}.example.`);
  row(zone, 'TXT', asText(`v=spf1 include:spf.${other}.example ip4:${address(random)} -all`), asText(`site-check=${base64(random, 22)}`));
  row(at('_dmarc'), 'TXT', asText(`v=DMARC1; p=none; rua=mailto:reports@${plain(zone)}`));
  row(at(`${random.pick(['tide', 'k1', 's2048'])}._domainkey`), 'TXT', asText(`v=DKIM1; k=rsa; p=MIGf${base64(random, random.pick([180, 360]))}`));
  row(at('_sip._tcp'), 'SRV', `10 20 5060 voice.${other}.example.`);
  row(at('_imaps._tcp'), 'SRV', `0 1 993 mail.${other}.example.`);
  row(at('_25._tcp.mail'), 'TLSA', `3 1 1 ${random.hex(64)}`);
  row(zone, 'CAA', `0 issue "ca.${other}.example"`);
  row(at('mail'), 'A', address(random));
  row(at('shop-api'), 'A', address(random));
  row(at('shop-api'), 'AAAA', `2001:db8:${random.hex(4)}:1::${1 + random.below(80)}`.replace(/:0+(?=[0-9a-f])/g, ':'));
  row(at('autodiscover'), 'CNAME', `auto1.${other}.example.`);
  row(at('cloud1'), 'CNAME', `box1.${host}.example.`);
  if (random.chance(0.3)) row(at('*'), 'A', address(random));
  return rows;
}

interface Made {
  readonly codes: readonly string[];
  readonly says: string;
  /** What stands there in the place of one planned value; or all of them with `all`. */
  readonly value?: string;
  readonly all?: readonly string[];
  /** It stands at another name or under another type. */
  readonly owner?: string;
  readonly type?: string;
  /** What stood there before and still does. */
  readonly found?: readonly string[];
  /** What stands at the same name as another type. */
  readonly beside?: readonly [string, readonly string[]];
}

const TARGETS = ['CNAME', 'MX', 'SRV'];
const targetOf = (data: string): string => data.slice(data.lastIndexOf(' ') + 1);
const withTarget = (data: string, target: string): string => `${data.slice(0, data.lastIndexOf(' ') + 1)}${target}`;
const textOf = (data: string): string => (data.match(/"((?:[^"\\]|\\.)*)"/g) ?? []).map((part) => part.slice(1, -1)).join('');
const short = (text: string): string => text.slice(0, 40);

function slipInWord(random: Random, word: string): string {
  const places = [...word].flatMap((letter, at) => (/[a-z]/.test(letter) && /[a-z]/.test(word[at + 1] ?? '') && letter !== word[at + 1] ? [at] : []));
  const at = random.pick(places);
  return random.pick([
    word.slice(0, at) + word.slice(at + 1),
    word.slice(0, at) + word[at]! + word.slice(at),
    word.slice(0, at) + word[at + 1]! + word[at]! + word.slice(at + 2),
  ]);
}

type Make = (random: Random, row: PlannedRow, zone: string, rows: readonly PlannedRow[]) => Made | undefined;
const only =
  (types: readonly string[], make: Make): Make =>
  (random, row, zone, rows) =>
    types.includes(row.type) ? make(random, row, zone, rows) : undefined;
const onTarget = (codes: readonly string[], change: (target: string, zone: string, random: Random) => string | undefined): Make =>
  only(TARGETS, (random, { planned }, zone) => {
    const right = random.pick(planned);
    const target = change(plain(targetOf(right)), zone, random);
    return target === undefined
      ? undefined
      : { codes, says: plain(targetOf(right)), value: right, all: planned.map((data) => (data === right ? withTarget(data, target) : data)) };
  });
const onText = (codes: readonly string[], change: (text: string, random: Random) => string | undefined): Make =>
  only(['TXT'], (random, { planned }) => {
    const right = random.pick(planned);
    const text = change(textOf(right), random);
    return text === undefined ? undefined : { codes, says: short(textOf(right)), all: planned.map((data) => (data === right ? asText(text) : data)) };
  });
const atName =
  (change: (relative: string, random: Random) => string | undefined, filter: (row: PlannedRow, zone: string) => boolean = () => true): Make =>
  (random, row, zone) => {
    if (!filter(row, zone)) return undefined;
    const relative = row.owner === zone ? '' : row.owner.slice(0, -zone.length - 1);
    const made = change(relative, random);
    if (made === undefined || made === relative) return undefined;
    return { codes: ['other name'], says: relative === '' ? '@' : relative, owner: made === '' ? zone : `${made}.${zone}`, all: row.planned };
  };

/** Each kind of slip; a set of which it cannot be made is passed over. */
export const KINDS: Readonly<Record<string, Make>> = {
  'the domain was appended to the name': (_random, row, zone) => ({
    codes: ['name appended'],
    says: row.owner === zone ? '@' : row.owner.slice(0, -zone.length - 1),
    owner: `${row.owner}${zone}`,
    all: row.planned,
  }),
  'an underscore lost': atName((relative) => (relative.includes('_') ? relative.replace('_', '') : undefined)),
  'all underscores lost': atName((relative) => (relative.includes('_') ? relative.replace(/_/g, '') : undefined)),
  'a hyphen for an underscore': atName((relative) => (relative.includes('_') ? relative.replace(/_/g, '-') : undefined)),
  'a dot lost': atName((relative) => (relative.includes('.') ? relative.replace('.', '') : undefined)),
  'a hyphen lost': atName((relative) => (relative.includes('-') ? relative.replace('-', '') : undefined)),
  '@ as text': atName((relative) => (relative === '' ? '\\@' : undefined)),
  'a star as text': atName((relative) => (relative === '*' ? '\\"*\\"' : undefined)),
  'a w too many': atName((relative) => (relative === 'www' ? 'wwww' : undefined)),
  'a letter for a digit': atName((relative) => (/1/.test(relative) ? relative.replace('1', 'l') : undefined)),
  'a letter of the name lost': atName((relative) => (/^(?:mail|autodiscover)$/.test(relative) ? relative.slice(0, 2) + relative.slice(3) : undefined)),
  'on www for the domain': atName(
    (relative) => (relative === '' ? 'www' : undefined),
    ({ type }) => type !== 'CNAME',
  ),
  'on the domain for www': atName((relative) => (relative === 'www' ? '' : undefined)),
  'the name left empty': atName((relative) => (/^_/.test(relative) ? '' : undefined)),
  'another type': only(['CNAME', 'TXT'], (_random, { type, planned, owner }) =>
    type === 'CNAME'
      ? { codes: ['other type'], says: 'CNAME', owner, type: 'TXT', all: [asText(plain(planned[0]!))] }
      : planned.length === 1 && !/\\/.test(planned[0]!) && textOf(planned[0]!).length < 60
        ? { codes: ['other type'], says: 'TXT', owner, type: 'SPF', all: planned }
        : undefined,
  ),
  'as a URL': onTarget(['url'], (target, _zone, random) => `${asLabels(random.pick(['https://', 'http://']))}${target}${random.pick(['', asLabels('/')])}.`),
  'with a path': onTarget(['url'], (target) => `${target}${asLabels('/')}.`),
  'a URL, and the domain appended': onTarget(['url'], (target, zone) => `${asLabels('https://')}${target}.${zone}`),
  'quotes around a target': onTarget(['quotes stored'], (target) => `${asLabels('"')}${target}${asLabels('"')}.`),
  'invisible characters': onTarget(['invisible'], (target, _zone, random) =>
    random.chance(0.5) ? `${asLabels('\u200b')}${target}.` : `${target}${asLabels('\u00a0')}.`,
  ),
  'a TTL in the value': onTarget(['ttl inside', 'priority inside'], (target) => `${asLabels('3600 ')}${target}.`),
  'the domain appended to the target': onTarget(['target gained the zone'], (target, zone) => `${target}.${zone}`),
  'the target misspelt': onTarget(['misspelt', 'ending'], (target, _zone, random) => `${slipInWord(random, target)}.`),
  'the target with another number': onTarget(['number', 'value of another'], (target) =>
    /\d/.test(target) ? `${target.replace(/\d/, (digit) => String((Number(digit) + 3) % 10))}.` : undefined,
  ),
  'the target with another ending': onTarget(['ending'], (target) => `${target.replace(/\.example$/, '.invalid')}.`),
  'the client’s own name': onTarget(['own name', 'own name'], (_target, zone, random) => random.pick([zone, `www.${zone}`])),
  'the website of the host': onTarget(['website'], (target) => `${target.split('.').slice(1).join('.')}.`),
  'only the beginning of the target': onTarget(['cut', 'target gained the zone'], (target, zone) => `${target.split('.')[0]}.${zone}`),
  'the priority in the value': only(['MX'], (random, { planned }) => {
    const right = random.pick(planned);
    const [priority, target] = right.split(' ');
    return { codes: ['priority inside'], says: plain(target!), all: planned.map((data) => (data === right ? `0 ${priority}\\032${target}` : data)) };
  }),
  'priorities exchanged': only(['MX'], (_random, { planned }) => ({
    codes: ['priorities exchanged'],
    says: plain(targetOf(planned[0]!)),
    all: [`20 ${targetOf(planned[0]!)}`, `10 ${targetOf(planned[1]!)}`],
  })),
  'another priority': only(['MX', 'SRV'], (random, { planned }) => {
    const right = random.pick(planned);
    const first = right.split(' ')[0]!;
    return { codes: ['field'], says: first, all: planned.map((data) => (data === right ? data.replace(/^\d+/, String(Number(first) + 35)) : data)) };
  }),
  'fields in another order': only(['SRV', 'TLSA'], (_random, { type, planned }) => {
    const [a, b, c, d] = planned[0]!.split(' ');
    return type === 'SRV'
      ? { codes: ['fields in another order'], says: c!, all: [`${c} ${a} ${b} ${d}`] }
      : a === b
        ? undefined
        : { codes: ['fields in another order'], says: short(d!), all: [`${b} ${c} ${a} ${d}`] };
  }),
  'another port': only(['SRV'], (_random, { planned }) => ({
    codes: ['field'],
    says: planned[0]!.split(' ')[2]!,
    all: [planned[0]!.replace(/^(\d+ \d+ )\d+/, '$18443')],
  })),
  'a CAA of another flag': only(['CAA'], (_random, { planned }) => ({ codes: ['field'], says: '0', all: [planned[0]!.replace(/^0/, '128')] })),
  'a CAA of another tag': only(['CAA'], (_random, { planned }) => ({ codes: ['field'], says: 'issue', all: [planned[0]!.replace(' issue ', ' issuewild ')] })),
  'a hash cut off': only(['TLSA'], (_random, { planned }) => ({ codes: ['cut'], says: short(planned[0]!.split(' ')[3]!), all: [planned[0]!.slice(0, -6)] })),
  'quotes in a text': onText(['quotes stored'], (text) => `"${text}"`),
  'other quotes in a text': onText(['quotes stored'], (text) => `“${text}”`),
  'a text cut off': onText(['text cut'], (text) => text.slice(0, Math.floor(text.length * 0.7))),
  'blanks lost in a text': onText(['blanks lost'], (text) => (text.includes(' ') ? text.replace(/ /g, '') : undefined)),
  'a blank in a text': onText(['text with blanks'], (text) => `${text.slice(0, Math.floor(text.length / 2))} ${text.slice(Math.floor(text.length / 2))}`),
  'entities in a text': onText(['entities'], (text) => (/[;:=]/.test(text) ? `&quot;${text}&quot;` : undefined)),
  'backslashes in a text': onText(['backslashes'], (text) => (text.includes(';') ? text.replace(/;/g, '\\;') : undefined)),
  'invisible characters in a text': onText(['invisible'], (text, random) =>
    random.pick([`\ufeff${text}`, `${text.slice(0, 5)}\u200b${text.slice(5)}`, text.includes(' ') ? text.replace(' ', '\u00a0') : `${text}\u200d`]),
  ),
  'a TTL in a text': onText(['ttl inside'], (text) => `3600 ${text}`),
  'a text misspelt': onText(['misspelt'], (text, random) => {
    const at = 3 + random.below(text.length - 6);
    return /[a-z]/.test(text[at]!) && text[at] !== 'q' ? `${text.slice(0, at)}q${text.slice(at + 1)}` : undefined;
  }),
  'a text in small letters': onText(['letter case'], (text) => (text.toLowerCase() === text ? undefined : text.toLowerCase())),
  'two texts made one': only(['TXT'], (random, { planned }) =>
    planned.length < 2 ? undefined : { codes: ['texts joined'], says: 'record each', all: [asText(planned.map(textOf).join(random.pick(['', ' ', '\n'])))] },
  ),
  'octets swapped': only(['A'], (_random, { planned }) => {
    const [a, b, c, d] = planned[0]!.split('.');
    return c === d ? undefined : { codes: ['octets swapped'], says: planned[0]!, all: [[a, b, d, c].join('.')] };
  }),
  'a digit of an address': only(['A'], (_random, { planned }) => {
    const made = planned[0]!.replace(/(\d)$/, (digit) => String((Number(digit) + 1) % 10));
    return { codes: ['misspelt'], says: planned[0]!, all: [made] };
  }),
  'a character of an IPv6 address': only(['AAAA'], (_random, { planned }) => ({
    codes: ['misspelt'],
    says: planned[0]!,
    all: [planned[0]!.replace(/^2001:db8:(.)/, (all, one: string) => (one === '7' ? all : '2001:db8:7'))],
  })),
  'the value of another row': only(['A', 'CNAME'], (random, { owner, type, planned }, _zone, rows) => {
    const others = rows.filter((row) => row.type === type && row.owner !== owner && row.planned[0] !== planned[0]);
    return others.length === 0 ? undefined : { codes: ['value of another', 'number'], says: plain(planned[0]!), all: random.pick(others).planned };
  }),
  'the old left beside the new': only(['A'], (random, { planned }) => {
    const old = `198.18.0.${1 + random.below(200)}`;
    return { codes: ['left beside'], says: old, all: [...planned, old], found: [old] };
  }),
  'not saved': only(['A', 'CNAME', 'TXT', 'MX'], (random, { type, owner }) => {
    const old = {
      A: [`198.18.0.${1 + random.below(200)}`],
      CNAME: ['before.elsewhere-host.test.'],
      TXT: [asText('formerly=yes this is old')],
      MX: ['5 post.elsewhere-host.test.'],
    }[type];
    return old && { codes: ['not saved', 'one spelling'], says: '', all: asServed(owner, type, old), found: asServed(owner, type, old) };
  }),
  'not typed': () => ({ codes: ['not there'], says: 'not there', all: [] }),
  'one of two not typed': (_random, { planned }) => (planned.length < 2 ? undefined : { codes: ['value missing'], says: '', all: planned.slice(1) }),
  'an address in the way of an alias': only(['CNAME'], (random, { planned }) => ({
    codes: ['alias beside'],
    says: plain(planned[0]!),
    all: [],
    beside: ['A', [`198.18.0.${1 + random.below(200)}`]],
  })),
  'an alias in the way of an address': only(['A'], (_random, { owner, planned }, zone) =>
    owner === zone ? undefined : { codes: ['alias beside'], says: planned[0]!, all: [], beside: ['CNAME', ['shop.elsewhere-host.test.']] },
  ),
};

/** What no slip explains: another value altogether, or one that only looks near. */
const STRANGERS: Readonly<Record<string, (random: Random, planned: string) => string>> = {
  A: (random, planned) =>
    random.chance(0.5)
      ? `198.18.${random.below(200)}.${random.below(200)}`
      : planned.replace(/\d+$/, (last) => (last.length === 3 ? `6${random.below(6)}` : '250')),
  AAAA: (random) => `2001:db8:ffff:${random.hex(3)}::${random.hex(3)}`.replace(/:0+(?=[0-9a-f])/g, ':'),
  CNAME: (random, planned) =>
    random.chance(0.5)
      ? `${random.pick(['shops', 'pages', 'a1'])}.elsewhere-${random.pick(['host', 'place'])}.test.`
      : planned.replace(/^[^.]+/, random.pick(['storefront', 'kettle', 'harbour'])),
  TXT: (random, planned) =>
    random.chance(0.4)
      ? asText(`other-token=${base64(random, 30)}`)
      : asText(textOf(planned).replace(/(?<=[=:])[^;=: ]{4,}/g, (word) => base64(random, word.length))),
  MX: (random) => `${random.pick([5, 15])} in.elsewhere-${random.pick(['post', 'mail'])}.test.`,
  SRV: (random) => `7 8 ${2000 + random.below(900)} sip.elsewhere-voice.test.`,
  TLSA: (random) => `3 1 1 ${random.hex(64)}`,
  CAA: () => '0 issue "another-ca.invalid"',
};

/** Kinds that are made of one value: two of them are made of two. */
const OF_ONE_VALUE: Readonly<Record<string, readonly string[]>> = {
  MX: [
    'as a URL',
    'with a path',
    'quotes around a target',
    'the domain appended to the target',
    'the target misspelt',
    'another priority',
    'the priority in the value',
    'the target with another ending',
  ],
  TXT: [
    'quotes in a text',
    'a text cut off',
    'a blank in a text',
    'entities in a text',
    'invisible characters in a text',
    'a TTL in a text',
    'a text misspelt',
  ],
};

/** Two slips in one set, a value each. */
function twoSlips(
  random: Random,
  zone: string,
  rows: readonly PlannedRow[],
): { readonly row: PlannedRow; readonly served: string[]; readonly truth: TypedZone['truth'] } | undefined {
  const row = random.pick(rows.filter(({ type, planned }) => OF_ONE_VALUE[type] && planned.length === 2));
  const kinds = random.shuffled(OF_ONE_VALUE[row.type]!).slice(0, 2);
  const made = kinds.map((kind, at) => KINDS[kind]!(random, { ...row, planned: [row.planned[at]!] }, zone, rows));
  if (made.some((one) => one?.all === undefined)) return undefined;
  return {
    row,
    served: asServed(
      row.owner,
      row.type,
      made.flatMap((one) => one!.all!),
    ),
    truth: made.map((one, at) => ({ kind: `${kinds[at]} (of two)`, codes: one!.codes, says: one!.says })),
  };
}

/** The zone that belongs to a seed. */
export function typedZone(seed: number): TypedZone {
  const random = new Random(seed);
  const zone = `${random.pick(['choir', 'canoe-yard', 'gull-radio', 'museum', 'seeds'])}.${random.pick(['example', 'test'])}.`;
  const rows = planOf(random, zone);
  const stored = new Map(rows.map((row) => [keyOf(row.owner, row.type), row.planned]));
  const found = new Map<string, readonly string[]>();
  const whole = random.next();
  if (whole < 0.15) {
    const row = random.pick(rows);
    const stranger = asServed(row.owner, row.type, [STRANGERS[row.type]!(random, random.pick(row.planned))]);
    stored.set(keyOf(row.owner, row.type), stranger);
    return { zone, rows, found, stored, owner: row.owner, type: row.type, truth: [] };
  }
  const two = whole < 0.3 ? twoSlips(random, zone, rows) : undefined;
  if (two) {
    stored.set(keyOf(two.row.owner, two.row.type), two.served);
    return { zone, rows, found, stored, owner: two.row.owner, type: two.row.type, truth: two.truth };
  }
  for (let tries = 0; tries < 200; tries++) {
    const row = random.pick(rows);
    const kind = random.pick(Object.keys(KINDS));
    const made = KINDS[kind]!(random, row, zone, rows);
    if (!made) continue;
    const truth = [{ kind, codes: made.codes, says: made.says }];
    const [owner, type] = [made.owner ?? row.owner, made.type ?? row.type];
    const isElsewhere = owner !== row.owner || type !== row.type;
    const served = asServed(owner, type, made.all ?? []);
    // Made the same by chance, or put where the plan has the same anyway.
    if (!isElsewhere && served.join('\n') === row.planned.join('\n')) continue;
    if (isElsewhere) {
      const there = stored.get(keyOf(owner, type)) ?? [];
      // An alias takes no address beside it.
      if ((type === 'CNAME' && rows.some((one) => one.owner === owner)) || stored.has(keyOf(owner, 'CNAME'))) continue;
      if (served.some((data) => there.includes(data))) continue;
      stored.set(keyOf(owner, type), [...there, ...served].sort());
      stored.delete(keyOf(row.owner, row.type));
    } else if (served.length === 0) stored.delete(keyOf(owner, type));
    else stored.set(keyOf(owner, type), served);
    if (made.found) found.set(keyOf(row.owner, row.type), made.found);
    if (made.beside) stored.set(keyOf(row.owner, made.beside[0]), asServed(row.owner, made.beside[0], made.beside[1]));
    return { zone, rows, found, stored, owner: row.owner, type: row.type, truth };
  }
  return typedZone(seed + 1_000_003);
}

/** What the host's servers answer of a set: its own, or what a wildcard gives where the name does not exist (RFC 4592). */
export function answerOf({ stored, zone }: TypedZone, owner: string, type: string): readonly string[] {
  const own = stored.get(keyOf(owner, type));
  if (own) return own;
  const name = owner.toLowerCase();
  const exists = [...stored.keys()].some((key) => key.slice(0, key.lastIndexOf(' ')) === name || key.slice(0, key.lastIndexOf(' ')).endsWith(`.${name}`));
  return exists || !name.endsWith(`.${zone}`) ? [] : (stored.get(keyOf(`*.${zone}`, type)) ?? []);
}
