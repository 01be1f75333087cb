import { Name } from '../dns/name';
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
    type: raw.type === 'SPF' ? 'TXT' : raw.type,
    ttl: ttlOf(raw.ttl),
    form: raw.form,
    line: raw.line,
    lastLine: raw.lastLine,
    ...(value.target !== undefined && { target: value.target }),
  };
  if (owner.is === 'elsewhere')
    return { ...common, owner: owner.name, data: value.data, trust: 'out', questions: ['It is of another domain.'], others: [] };
  const questions = [...raw.doubts, ...(owner.doubt === undefined ? [] : [owner.doubt]), ...value.doubts];
  const others = [
    ...(owner.other === undefined ? [] : [{ owner: owner.other, data: value.data }]),
    ...(raw.other ? otherReading(raw, subject, zone) : []),
  ];
  if (raw.out !== undefined) return { ...common, owner: owner.owner, data: value.data, trust: 'out', questions: [raw.out], others: [] };
  // The other way round is no doubt where it cannot be read.
  const open = raw.other && others.length === 0 ? questions.filter((one) => !one.includes('the other way round')) : questions;
  return { ...common, owner: owner.owner, data: value.data, trust: open.length === 0 ? 'sure' : 'ask', questions: open, others };
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
    if (find.trust === 'sure' && find.target !== undefined && !byOwner.has(find.target))
      doubted.set(find, `It leads to ${find.target}, a name that is not in this text.`);
  return finds.map((find) => {
    const doubt = doubted.get(find);
    return doubt === undefined ? find : { ...find, trust: 'ask', questions: [...find.questions, doubt] };
  });
}
