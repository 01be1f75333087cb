import { Random } from '../texts/random';

/** A nameserver set as somebody typed it, with what they did: made without the code that is to tell it. */
export interface TypedSet {
  readonly zone: string;
  readonly wanted: readonly string[];
  readonly old: readonly string[];
  readonly others: readonly { readonly of: string; readonly nameservers: readonly string[] }[];
  readonly fields: readonly string[];
  /** Each slip: the names under which it may be told, and what is to be typed instead; null where something is only to go. */
  readonly truth: readonly { readonly kind: string; readonly codes: readonly string[]; readonly wanted: string | null; readonly typed: string | null }[];
  /** No slip explains one of the fields: none may be claimed for it. */
  readonly strangers: readonly string[];
}

const WORDS = [
  'quillmere',
  'oldquay',
  'thornwick',
  'pebbledock',
  'saltmarsh',
  'driftwood',
  'millrace',
  'kelpfield',
  'rushbrook',
  'sandbar',
  'ebbtide',
  'lanternway',
];
const CLIENTS = ['choir', 'canoe-yard', 'gull-radio', 'cheese-dairy', 'museum', 'seed-library', 'kelp', 'allotments'];
const LABELS = ['amber', 'birch', 'cobalt', 'dune', 'elm', 'fjord', 'granite', 'heath', 'iris', 'juniper', 'larch', 'moss', 'nettle', 'opal', 'pine', 'quartz'];
const ENDINGS = ['example', 'test', 'dns.example', 'net.example', 'co.example'];

/** A host that gives sets: numbered, lettered, or of words; all below one domain, or one domain a name. */
function hostOf(random: Random, word: string): (from: number, count: number) => string[] {
  const ending = random.pick(ENDINGS);
  const [prefix, digits] = [random.pick(['ns', 'dns', 'ns-', 'pdns', 'a.ns', 'node']), random.chance(0.2)];
  const labels = random.shuffled(LABELS);
  const style = random.pick(['numbers', 'numbers', 'words', 'letters', 'domains'] as const);
  return (from, count) =>
    Array.from({ length: count }, (_, index) => {
      const number = from + index;
      if (style === 'numbers') return `${prefix}${digits ? String(number).padStart(2, '0') : number}.${word}.${ending}`;
      if (style === 'domains') return `ns${number}.${word}-${['dns', 'ns', 'zone', 'names', 'host', 'cloud'][number % 6]}.${ending}`;
      if (style === 'letters') return `dns-${'abcdefghijklmnop'[number % 16]}.${word}.${ending}`;
      return `${labels[number % labels.length]}.${word}.${ending}`;
    });
}

/** Letters changed in ways of the finger: one lost, doubled, exchanged or hit beside; never a digit, which is another slip. */
function slipOfFinger(random: Random, name: string): string {
  const places = [...name].flatMap((letter, at) => (/[a-z]/.test(letter) && /[a-z]/.test(name[at + 1] ?? '') && letter !== name[at + 1] ? [at] : []));
  const at = random.pick(places);
  return random.pick([
    name.slice(0, at) + name.slice(at + 1),
    name.slice(0, at) + name[at]! + name.slice(at),
    name.slice(0, at) + name[at + 1]! + name[at]! + name.slice(at + 2),
    name.slice(0, at) + (name[at] === 'q' ? 'w' : 'q') + name.slice(at + 1),
  ]);
}

/** One wanted name as it was typed wrongly; undefined where this slip cannot be made of it. */
const ONE: Readonly<Record<string, { readonly codes: readonly string[]; readonly make: (random: Random, name: string, set: Drawn) => string | undefined }>> = {
  // In the last label it is another ending as well.
  misspelt: { codes: ['misspelt', 'ending'], make: (random, name) => slipOfFinger(random, name) },
  'letter for digit': {
    codes: ['misspelt'],
    make: (_random, name) => (/1/.test(name) ? name.replace('1', 'l') : /0/.test(name) ? name.replace('0', 'o') : undefined),
  },
  'dot lost': { codes: ['misspelt'], make: (_random, name) => name.replace('.', '') },
  'hyphen lost': { codes: ['misspelt'], make: (_random, name) => (name.includes('-') ? name.replace('-', '') : undefined) },
  'hyphen for dot': { codes: ['misspelt'], make: (_random, name) => name.replace('.', '-') },
  appended: { codes: ['appended'], make: (_random, name, { zone }) => `${name}.${zone}` },
  cut: {
    codes: ['cut'],
    make: (random, name) =>
      name
        .split('.')
        .slice(0, 1 + random.below(name.split('.').length - 1))
        .join('.'),
  },
  number: {
    codes: ['number'],
    make: (random, name, { wanted, far }) => {
      const other = name.replace(/\d+/, (digits) => String((Number(digits) + 1 + random.below(8)) % 90).padStart(digits.length, '0'));
      return other === name || wanted.includes(other) || far(other) ? undefined : other;
    },
  },
  copied: {
    codes: ['number', 'twice'],
    make: (random, name, { wanted }) => {
      const others = wanted.filter((one) => one !== name && one.replace(/\d+/g, '#') === name.replace(/\d+/g, '#'));
      return others.length > 0 ? random.pick(others) : undefined;
    },
  },
  'in front': { codes: ['in front'], make: (random, name) => `${random.pick(['www', 'dns', 'primary', 'cp', 'host'])}.${name}` },
  ending: {
    codes: ['ending'],
    make: (random, name) => {
      const ending = random.pick(['invalid', 'example.invalid', 'localhost']);
      return `${name.slice(0, name.lastIndexOf('.'))}.${ending}`;
    },
  },
  'ending behind': { codes: ['ending'], make: (random, name) => `${name}.${random.pick(['invalid', 'localhost'])}` },
  website: {
    codes: ['website'],
    make: (random, name) => (name.split('.').length > 2 ? `${random.pick(['', 'www.'])}${name.split('.').slice(1).join('.')}` : undefined),
  },
  'own domain': { codes: ['own domain'], make: (random, _name, { zone }) => `${random.pick(['', 'ns.', 'www.', 'dns.'])}${zone}` },
  'own domain, the label': { codes: ['own domain'], make: (_random, name, { zone }) => `${name.split('.')[0]}.${zone}` },
  comma: { codes: ['within'], make: (_random, name) => name.replace('.', ',') },
  'blank for a dot': { codes: ['within'], make: (_random, name) => name.replace('.', ' ') },
  'blank after a dot': { codes: ['within'], make: (_random, name) => name.replace('.', '. ') },
  'another set': { codes: ['other set'], make: (random, _name, { known }) => random.pick(known) },
};
/** Two slips in one name. */
const TWO: readonly (readonly [string, readonly (readonly string[])[], (random: Random, name: string, set: Drawn) => string])[] = [
  ['misspelt, and the domain appended', [['appended'], ['misspelt', 'ending']], (random, name, { zone }) => `${slipOfFinger(random, name)}.${zone}`],
  ['misspelt, as a URL', [['misspelt', 'ending']], (random, name) => `https://${slipOfFinger(random, name)}/`],
];

interface Drawn {
  readonly zone: string;
  readonly wanted: readonly string[];
  readonly known: readonly string[];
  /** Says of a name that it is of another set that is known, or of the old one. */
  readonly far: (name: string) => boolean;
}

/** The set that belongs to a seed. Kinds are dealt evenly. */
export function typedSet(seed: number): TypedSet {
  const random = new Random(seed);
  const [newWord, oldWord, otherWord] = random.shuffled(WORDS);
  const [client, otherClient] = random.shuffled(CLIENTS);
  const zone = `${client}.${random.pick(['example', 'test', 'org.example'])}`;
  const host = hostOf(random, newWord!);
  const count = 2 + random.below(3);
  const first = random.pick([1, 1, 1, 3, 11, 41]);
  const wanted = host(first, count);
  const old = hostOf(random, oldWord!)(1, 2 + random.below(3));
  const clientsSet = host(first + 5, count);
  const others = [
    { of: `${otherWord} DNS`, nameservers: hostOf(random, otherWord!)(1, 2 + random.below(2)) },
    ...(random.chance(0.5) ? [{ of: `${otherClient}.example`, nameservers: clientsSet }] : []),
  ].filter((set) => !set.nameservers.some((name) => wanted.includes(name)));
  const known = others.flatMap((set) => set.nameservers);
  const drawn: Drawn = { zone, wanted, known, far: (name) => known.includes(name) || old.includes(name) };
  const truth: { kind: string; codes: readonly string[]; wanted: string | null; typed: string | null }[] = [];
  const strangers: string[] = [];
  const fields: string[] = [...wanted];
  const finish = (): TypedSet => {
    const dots = random.chance(0.3);
    const upper = random.chance(0.1);
    const written = fields.map((field) => (upper ? field.toUpperCase() : dots && /^[a-z0-9.-]+$/.test(field) ? `${field}.` : field));
    return { zone: `${zone}.`, ...named({ wanted, old, others }), fields: random.chance(0.4) ? random.shuffled(written) : written, truth, strangers };
  };

  const whole = random.next();
  if (whole < 0.1) return finish();
  if (whole < 0.16) {
    // The set that the host gave to another client, whole.
    fields.splice(0, fields.length, ...clientsSet);
    truth.push(...clientsSet.map((typed) => ({ kind: 'the set of another client', codes: ['other set'], wanted: null, typed })));
    if (clientsSet.some((name) => wanted.includes(name))) return typedSet(seed + 1_000_003);
    return finish();
  }
  if (whole < 0.2) {
    const set = others[0]!.nameservers;
    fields.splice(0, fields.length, ...set);
    truth.push(...set.slice(0, wanted.length).map((typed) => ({ kind: 'the set of another host', codes: ['other set'], wanted: null, typed })));
    return finish();
  }
  if (whole < 0.26) {
    fields.splice(0, 2, `${wanted[0]}${random.pick(['', '.'])}${wanted[1]}`);
    truth.push({ kind: 'run together', codes: ['together'], wanted: wanted[0]!, typed: null });
    return finish();
  }
  if (whole < 0.34) {
    // Nothing explains it: another name altogether, at a place that nobody knows.
    const at = random.below(count);
    const stranger = random.pick([
      'cedar.unheard.example',
      'ns1.parking.invalid',
      'a1.zonehouse.test',
      'srv.elsewhere-names.example',
      'gateway.bramble.invalid',
    ]);
    fields[at] = stranger;
    strangers.push(stranger);
    return finish();
  }
  if (whole < 0.42) {
    const left = random.pick(old);
    const at = random.below(count + 1);
    if (random.chance(0.5) || at === count) fields.push(left);
    else {
      fields[at] = left;
      truth.push({ kind: 'not saved', codes: ['missing'], wanted: wanted[at]!, typed: null });
    }
    truth.push({ kind: 'left over', codes: ['left over'], wanted: null, typed: left });
    return finish();
  }
  if (whole < 0.48) {
    const at = random.below(count);
    fields.splice(at, 1);
    truth.push({ kind: 'not saved', codes: ['missing'], wanted: wanted[at]!, typed: null });
    if (random.chance(0.5)) {
      const left = random.pick(old);
      fields.push(left);
      truth.push({ kind: 'left over', codes: ['left over'], wanted: null, typed: left });
    }
    return finish();
  }
  // One slip or two, in different names or in one.
  const slips = random.chance(0.5) ? 1 : 2;
  const places = random.shuffled(wanted.map((_, index) => index)).slice(0, slips);
  for (const at of places) {
    if (slips === 1 && random.chance(0.15)) {
      const [kind, codes, make] = random.pick(TWO);
      fields[at] = make(random, wanted[at]!, drawn);
      for (const one of codes) truth.push({ kind, codes: one, wanted: wanted[at]!, typed: null });
      continue;
    }
    for (let tries = 0; tries < 20; tries++) {
      const kind = random.pick(Object.keys(ONE));
      const made = ONE[kind]!.make(random, wanted[at]!, drawn);
      // Copied from a name that is wrong itself is another slip than it looks.
      if (made === undefined || wanted.includes(made) !== (kind === 'copied') || (kind === 'copied' && !fields.includes(made)) || old.includes(made)) continue;
      if (kind !== 'another set' && known.includes(made)) continue;
      fields[at] = made;
      truth.push({ kind, codes: ONE[kind]!.codes, wanted: wanted[at]!, typed: made });
      break;
    }
  }
  return finish();
}

function named(sets: Pick<TypedSet, 'wanted' | 'old' | 'others'>): Pick<TypedSet, 'wanted' | 'old' | 'others'> {
  const dotted = (names: readonly string[]): string[] => names.map((name) => `${name}.`);
  return { wanted: dotted(sets.wanted), old: dotted(sets.old), others: sets.others.map(({ of, nameservers }) => ({ of, nameservers: dotted(nameservers) })) };
}
