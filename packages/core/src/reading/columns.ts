import { Name } from '../dns/name';
import { About, aboutOf } from './about';
import { Subject } from './find';
import { Label, labelOf } from './labels';
import { isNoise } from './noiseWords';
import { readOwner } from './owner';
import { LEAST_TTL, ttlText } from './ttlText';
import { typeWord } from './typeWord';
import { fitsValue } from './value';

/** What the columns of a table are, told by what stands in them over all rows; headings help and never overrule. */
export interface Columns {
  readonly type: number | undefined;
  readonly name: number | undefined;
  readonly value: number;
  readonly ttl?: number | undefined;
  readonly priority?: number | undefined;
  readonly weight?: number | undefined;
  readonly port?: number | undefined;
  /** Service and protocol of SRV records in columns of their own (RFC 2782). */
  readonly service?: number | undefined;
  readonly protocol?: number | undefined;
  /** What a column of domains says, where name and domain stand apart. */
  readonly domain?: number | undefined;
  /** The other way to tell name and value, where both are possible. */
  readonly turned?: { readonly name: number; readonly value: number } | undefined;
  /** Columns of which nothing is made. */
  readonly unknown: readonly number[];
  /** Columns of states and buttons, each with its heading and all that stands in it. */
  readonly states: readonly { readonly index: number; readonly heading: string; readonly all: readonly string[] }[];
  /** The heading of the value is about the opposite of what is asked for. */
  readonly about: About;
}

/** Rows by which columns are told: more would say the same. */
const SAMPLE = 2000;
/** The share of rows of which a column has to be what it is taken for: some rows of a table are none. */
const NEARLY_ALL = 0.8;
/** The same of a column that is headed as what it is: a small table may have a wrong value in every other row. */
const HALF = 0.5;
/** Different states of a column that are looked at. */
const MOST_STATES = 50;
/** Types whose numbers may stand in columns of their own. */
const NUMBERED: ReadonlySet<string> = new Set(['MX', 'SRV', 'KX', 'URI', 'HTTPS', 'SVCB', 'AFSDB', 'RT', 'NAPTR', 'CAA']);

interface Facts {
  readonly index: number;
  readonly cells: readonly string[];
  readonly full: readonly string[];
  readonly label: Label | undefined;
  readonly about: About;
}

/** Empty as panels draw it. */
export function isEmptyCell(cell: string): boolean {
  return cell === '' || cell === '-' || cell === '–' || cell === '—' || cell === 'N/A' || cell === 'n/a';
}

/** Undefined where no column can be a value of the types that stand there. `type`: of every row, where the heading above says so. */
export function tellColumns(
  rows: readonly (readonly string[])[],
  head: readonly string[] | undefined,
  { subject, zone, type: above }: { readonly subject: Subject; readonly zone: Name; readonly type: string | undefined },
): Columns | undefined {
  const sample = rows.slice(0, SAMPLE);
  const width = Math.max(0, ...sample.map((row) => row.length));
  const all: Facts[] = Array.from({ length: width }, (_, index) => {
    const cells = sample.map((row) => row[index] ?? '');
    const heading = head?.[index] ?? '';
    return { index, cells, full: cells.filter((cell) => !isEmptyCell(cell)), label: labelOf(heading), about: aboutOf(heading) };
  });
  const share = ({ full }: Facts, test: (cell: string) => boolean): number => (full.length === 0 ? 0 : full.filter(test).length / full.length);
  const typed = all.filter((one) => one.full.length >= sample.length * NEARLY_ALL && share(one, (cell) => typeWord(cell) !== undefined) >= NEARLY_ALL);
  const type = typed.find(({ label }) => label === 'type') ?? typed[0];
  if (!type && above === undefined) return undefined;
  const types = type ? type.cells.map((cell) => typeWord(cell)) : sample.map(() => above);
  const rest = all.filter((one) => one !== type && one.full.length > 0);
  const fits = new Map(
    rest.map((one) => {
      const tried = one.cells.flatMap((cell, row) => (types[row] === undefined || isEmptyCell(cell) ? [] : [fitsValue(types[row]!, cell, zone)]));
      const rowsTyped = types.filter((one) => one !== undefined).length;
      return [one, tried.filter(Boolean).length / Math.max(1, rowsTyped)] as const;
    }),
  );
  const isNumeric = (one: Facts): boolean => share(one, (cell) => /^\d{1,5}$/.test(cell)) === 1;
  const isTtl = (one: Facts): boolean => share(one, (cell) => ttlText(cell) !== undefined) === 1;
  const isNamed = (one: Facts): boolean => share(one, (cell) => readOwner(cell, subject) !== undefined && !isNoise(cell) && !cell.endsWith(':')) >= NEARLY_ALL;
  const isProtocol = (one: Facts): boolean => share(one, (cell) => /^_(?:tcp|udp|tls|sctp|dccp)$/i.test(cell)) === 1;
  const isUnderscored = (one: Facts): boolean => share(one, (cell) => /^_[a-z0-9-]+$/i.test(cell)) === 1;
  const protocols = rest.filter(isProtocol);
  const isPart = (one: Facts): boolean => protocols.length === 1 && isUnderscored(one);
  const isQuiet = (one: Facts): boolean => one.label === 'noise' || share(one, isNoise) === 1;
  const values = rest.filter(
    (one) => fits.get(one)! >= (one.label === 'value' ? HALF : NEARLY_ALL) && (!isQuiet(one) || one.label === 'value') && one.label !== 'noise',
  );
  // Numbers and TTLs are names where a heading says so.
  const isCount = (one: Facts): boolean => share(one, (cell) => ttlText(cell) !== undefined || /^\d{1,5}$/.test(cell)) >= NEARLY_ALL;
  const isClass = (one: Facts): boolean => share(one, (cell) => /^(?:IN|Internet|CLASS1)$/i.test(cell)) === 1;
  const names = rest.filter((one) => isNamed(one) && one.label !== 'noise' && !isClass(one) && !isPart(one) && (one.label === 'name' || !isCount(one)));
  const plain = values.filter((one) => one.label === 'value' || !isCount(one));
  const wanted = plain.filter(({ about }) => about === undefined || about === subject.as);
  const readable = new Map(names.map((one) => [one, share(one, (cell) => readOwner(cell, subject)?.is === 'ours')]));
  const found = choose(wanted.length > 0 ? wanted : plain, names, ({ value, name }) => fits.get(value)! + (name ? readable.get(name)! : 0));
  if (!found) return undefined;
  const { value, name, turned } = found;
  const left = rest.filter((one) => one !== value && one !== name);
  const take = (test: (one: Facts) => boolean): Facts | undefined => {
    const at = left.findIndex(test);
    return at < 0 ? undefined : left.splice(at, 1)[0];
  };
  const others = new Set(values.filter((one) => one.about !== undefined));
  const onNumbered = (one: Facts): boolean => one.cells.every((cell, row) => isEmptyCell(cell) || cell === '0' || NUMBERED.has(types[row] ?? ''));
  take(isClass);
  const priority =
    take((one) => isNumeric(one) && one.label === 'priority') ??
    take((one) => one.label === undefined && isNumeric(one) && onNumbered(one) && types.includes('MX'));
  const weight = take((one) => isNumeric(one) && one.label === 'weight');
  const port = take((one) => isNumeric(one) && one.label === 'port');
  const isBare = (one: Facts): boolean => share(one, (cell) => /^\d+$/.test(cell) && Number(cell) < LEAST_TTL) > 0;
  const ttl =
    take((one) => isTtl(one) && one.label === 'ttl') ?? take((one) => isTtl(one) && (one.label === undefined || one.label === 'noise') && !isBare(one));
  const protocol = protocols.length === 1 ? take(isProtocol) : undefined;
  const service = protocol && take(isUnderscored);
  const domain = take(
    (one) => share(one, (cell) => /^[^\s@]+\.[^\s@]+$/.test(cell)) === 1 && new Set(one.full).size === 1 && (one.label === 'domain' || one.label === undefined),
  );
  const isCounting = (one: Facts): boolean => isNumeric(one) && one.cells.every((cell, row) => row === 0 || Number(cell) === Number(one.cells[row - 1]) + 1);
  const isConstant = (one: Facts): boolean =>
    sample.length > 1 && one.full.length === sample.length && new Set(one.full).size === 1 && !/[\d.@=]/.test(one.full[0]!);
  // "old:" and "new:" before their rows.
  const isAbout = (one: Facts): boolean => one.full.length === sample.length && one.full.every((cell) => cell.length < 40 && aboutOf(cell) !== undefined);
  const unknown = left.filter((one) => !(isAbout(one) || isQuiet(one) || isCounting(one) || isConstant(one) || others.has(one)));
  return {
    type: type?.index,
    name: name?.index,
    value: value.index,
    ttl: ttl?.index,
    priority: priority?.index,
    weight: weight?.index,
    port: port?.index,
    domain: domain?.index,
    service: service?.index,
    protocol: protocol?.index,
    turned: turned && { name: turned.name.index, value: turned.value.index },
    unknown: unknown.map(({ index }) => index),
    states: left
      .filter((one) => !unknown.includes(one))
      .map(({ index, full }) => ({ index, heading: head?.[index] ?? '', all: [...new Set(full)].slice(0, MOST_STATES) })),
    about: value.about,
  };
}

interface Pair {
  readonly value: Facts;
  readonly name: Facts | undefined;
}

/**
 * The pair of name and value by which most rows can be read, then the one that headings name, then the one whose name stands first; with
 * the next one where neither rows nor headings tell them apart.
 */
function choose(
  values: readonly Facts[],
  names: readonly Facts[],
  reads: (pair: Pair) => number,
): (Pair & { readonly turned?: { readonly name: Facts; readonly value: Facts } | undefined }) | undefined {
  const pairs = values.flatMap((value): Pair[] => {
    const beside = names.filter((name) => name !== value);
    return beside.length > 0 ? beside.map((name) => ({ value, name })) : [{ value, name: undefined }];
  });
  const named = ({ value, name }: Pair): number =>
    (value.label === 'value' ? 2 : 0) +
    (name?.label === 'name' ? 2 : 0) +
    (value.label !== undefined && value.label !== 'value' ? -3 : 0) +
    (name?.label !== undefined && name.label !== 'name' ? -3 : 0) +
    (name === undefined ? -1 : 0);
  const ranked = pairs
    .map((pair) => ({ pair, read: reads(pair), named: named(pair) }))
    .sort((a, b) => b.read - a.read || b.named - a.named || (a.pair.name?.index ?? 0) - (b.pair.name?.index ?? 0));
  const best = ranked[0];
  if (!best) return undefined;
  const rival = ranked.find((one) => one.pair !== best.pair && one.pair.name !== undefined && one.read === best.read && one.named >= best.named);
  return { ...best.pair, turned: rival?.pair.name && { name: rival.pair.name, value: rival.pair.value } };
}
