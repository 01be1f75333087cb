import { Name, NameError } from '../dns/name';
import { parseRdata } from '../dns/rdata';
import { TextError } from '../dns/token';
import { typeCode } from '../dns/typeNames';
import { Find, RawRecord, Subject } from './find';
import { readOwner } from './owner';
import { ttlText } from './ttlText';
import { ValueRead, readValue } from './value';

/** Types of which a name has one record at most (RFC 1034 §3.6.2, RFC 6672 §2.4). */
const SINGLE: ReadonlySet<string> = new Set(['CNAME', 'DNAME', 'SOA', 'ALIAS', 'ANAME']);

/**
 * Judges a record as its parts stand in a text: sure only where its name, its value and its place are. Undefined where it is none: then
 * its line was not read.
 */
export function judge(raw: RawRecord, subject: Subject, zone: Name): Find | undefined {
  const owner = readOwner(raw.owner ?? '@', subject);
  const value = readValue(raw.type, raw.value, zone, raw, raw.isFile);
  if (!owner || !value) return undefined;
  const common = {
    kind: 'record' as const,
    type: shownType(raw.type, subject),
    ttl: ttlOf(raw.ttl),
    form: raw.form,
    line: raw.line,
    lastLine: raw.lastLine,
    ...(value.target !== undefined && { target: value.target }),
  };
  if (owner.is === 'elsewhere') return { ...common, owner: owner.name, data: value.data, trust: 'out', questions: ['It is of another domain.'], others: [] };
  const questions = [...raw.doubts, ...(owner.doubt === undefined ? [] : [owner.doubt]), ...value.doubts];
  if (subject.as === 'new' && LEADS.has(raw.type)) {
    const own = ownTarget(value.data, subject);
    // `www` that follows the domain itself is how many hosts want it.
    const isUsual = own !== undefined && subject.zone !== undefined && owner.owner === 'www' && `${own}.` === subject.zone.toLowerCase();
    if (own !== undefined && !isUsual) questions.push(`It leads to ${own}, a name of the client’s own: is the host’s meant?`);
  }
  const others = [...(owner.other === undefined ? [] : [{ owner: owner.other, data: value.data }]), ...(raw.other ? otherReading(raw, subject, zone) : [])];
  if (raw.out !== undefined) return { ...common, owner: owner.owner, data: value.data, trust: 'out', questions: [raw.out], others: [] };
  // The other way round is no doubt where it cannot be read.
  const open = raw.other && others.length === 0 ? questions.filter((one) => !one.includes('the other way round')) : questions;
  return { ...common, owner: owner.owner, data: value.data, trust: open.length === 0 ? 'sure' : 'ask', questions: open, others };
}

/** The type that goes into a plan: an alias that the host resolves itself is wanted as an alias. */
function shownType(type: string, { as }: Subject): string {
  if (type === 'SPF') return 'TXT';
  return as === 'new' && (type === 'ALIAS' || type === 'ANAME') ? 'CNAME' : type;
}

/** Types by which a new host leads to its own names. */
const LEADS: ReadonlySet<string> = new Set(['CNAME', 'ALIAS', 'ANAME', 'MX']);

/** The target of a value where it is a name of the domain or of a client's; pages of help show it in the place of the host's. */
function ownTarget(data: string, { zone, own }: Subject): string | undefined {
  const target = data.slice(data.lastIndexOf(' ') + 1).toLowerCase();
  const all = [...own.map((name) => `${name}.`), ...(zone === undefined ? [] : [zone.toLowerCase()])];
  return all.some((name) => target === name || target.endsWith(`.${name}`)) ? target.replace(/\.$/, '') : undefined;
}

/** Why a record that stands in a text is none, in words. */
export function problemOf({ owner, type, value }: RawRecord, subject: Subject, zone: Name): string {
  if (readOwner(owner ?? '@', subject) === undefined) return `${owner ?? ''} is no name`;
  const code = typeCode(type);
  try {
    if (code !== undefined) parseRdata(code, value, zone);
  } catch (error) {
    if (error instanceof NameError || error instanceof TextError || error instanceof RangeError) return error.message;
    throw error;
  }
  return `this is no value of a ${type} record`;
}

function otherReading(raw: RawRecord, subject: Subject, zone: Name): { owner: string; data: string }[] {
  const { owner, value } = raw.other!;
  const name = readOwner(owner ?? '@', subject);
  const read: ValueRead | undefined = readValue(raw.type, value, zone, raw);
  return name?.is === 'ours' && read ? [{ owner: name.owner, data: read.data }] : [];
}

function ttlOf(text: string | undefined): number | undefined {
  const ttl = text === undefined ? undefined : ttlText(text);
  return ttl === 'auto' ? undefined : ttl;
}

/** What contradicts itself within one text is asked about: two aliases at a name, an alias beside something else. */
export function contradictions(finds: readonly Find[]): Find[] {
  const byOwner = new Map<string, Find[]>();
  for (const find of finds) {
    if (find.kind !== 'record' || find.trust === 'out') continue;
    const key = find.owner.toLowerCase();
    const all = byOwner.get(key);
    if (all) all.push(find);
    else byOwner.set(key, [find]);
  }
  const doubted = new Map<Find, string>();
  for (const all of byOwner.values()) {
    const singles = all.filter(({ type }) => SINGLE.has(type));
    if (singles.length === 0) continue;
    const different = new Set(singles.map(({ data }) => data.toLowerCase()));
    if (different.size > 1) for (const one of singles) doubted.set(one, `${one.owner} can have one ${one.type} record, and the text has ${different.size}.`);
    // An alias stands alone at its name (RFC 1034 §3.6.2); hosts that resolve it themselves let others stand beside it.
    else if (singles.some(({ type }) => type === 'CNAME') && all.some(({ type }) => type !== 'CNAME'))
      for (const one of all) doubted.set(one, `${one.owner} has an alias in this text, and other records beside it.`);
  }
  for (const find of finds)
    if (find.trust === 'sure' && find.type === 'CNAME' && find.target !== undefined && find.target.toLowerCase() === find.owner.toLowerCase())
      doubted.set(find, 'It leads to itself.');
  for (const find of finds)
    if (find.trust === 'sure' && find.target !== undefined && !byOwner.has(find.target))
      doubted.set(find, `It leads to ${find.target}, a name that is not in this text.`);
  return finds.map((find) => {
    const doubt = doubted.get(find);
    return doubt === undefined ? find : { ...find, trust: 'ask', questions: [...find.questions, doubt] };
  });
}
