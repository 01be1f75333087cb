import { Name } from '../dns/name';
import { Find, Subject } from './find';
import { judge } from './judge';
import { NameFound } from './mailHeaders';
import { readOwner } from './owner';
import { Named } from './sentences';

/** A nameserver or an address that a text names; undefined where it is none. */
export function namedFind({ kind, text, line, doubt }: Named, subject: Subject, zone: Name): Find | undefined {
  const common = {
    ttl: undefined,
    questions: doubt === undefined ? [] : [doubt],
    trust: doubt === undefined ? ('sure' as const) : ('ask' as const),
    others: [],
    form: 'sentence' as const,
    line,
    lastLine: line,
  };
  if (kind === 'address') {
    const type = text.includes(':') ? 'AAAA' : 'A';
    const read = judge({ owner: '@', type, value: text, line, lastLine: line, form: 'sentence', doubts: [] }, subject, zone);
    return read && { ...common, kind, owner: '', type, data: text };
  }
  const whole = `${text.replace(/\.$/, '').toLowerCase()}.`;
  return Name.tryParse(whole) !== undefined && whole.split('.').length > 2 ? { ...common, kind, owner: '@', type: 'NS', data: whole } : undefined;
}

/** A name of which a text says no more than that it is there; undefined where it is none. */
export function nameFind({ name, line }: NameFound, subject: Subject): Find | undefined {
  const owner = readOwner(name, subject);
  if (!owner) return undefined;
  const common = { kind: 'name' as const, type: '', data: '', ttl: undefined, form: 'names' as const, line, lastLine: line };
  if (owner.is === 'elsewhere') return { ...common, owner: owner.name, trust: 'out', questions: ['It is of another domain.'], others: [] };
  return {
    ...common,
    owner: owner.owner,
    trust: owner.doubt === undefined ? 'sure' : 'ask',
    questions: owner.doubt === undefined ? [] : [owner.doubt],
    others: owner.other === undefined ? [] : [{ owner: owner.other, data: '' }],
  };
}
