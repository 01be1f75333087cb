import { Name } from '../dns/name';
import { NameMap } from '../dns/nameMap';
import { RRset, rrsetKey } from '../dns/record';
import { TYPE_CODES } from '../dns/typeNames';
import { CATALOGUE } from './catalogue';
import { SurveyQuestion } from './surveyAnswer';
import { Purpose, inReadingOrder, meaningsOf } from './purpose';

/** Made by signing, and told of as the serial. */
const NOT_COMPARED: ReadonlySet<number> = new Set([TYPE_CODES.RRSIG, TYPE_CODES.NSEC, TYPE_CODES.NSEC3, TYPE_CODES.NSEC3PARAM, TYPE_CODES.SOA]);
const FIRST: ReadonlySet<Purpose> = new Set(['mail in', 'mail out', 'sender policy']);

/** The sets that every authority is asked for, mail and policy first, then in reading order. The NS set of a zone below is the child's to answer for. */
export function comparedSets(zone: Name, sets: readonly RRset[]): RRset[] {
  const meanings = meaningsOf(zone, sets);
  const isFirst = (set: RRset): boolean => FIRST.has(meanings.get(set)!.purpose);
  return inReadingOrder(zone, sets)
    .filter((set) => !NOT_COMPARED.has(set.type) && !(set.type === TYPE_CODES.NS && !set.owner.equals(zone)))
    .sort((a, b) => Number(isFirst(b)) - Number(isFirst(a)));
}

const MUST_NOT_BE_LOST: readonly { readonly label: string; readonly types: readonly number[] }[] = [
  { label: '', types: [TYPE_CODES.MX, TYPE_CODES.TXT, TYPE_CODES.A, TYPE_CODES.AAAA, TYPE_CODES.CAA] },
  { label: '_dmarc', types: [TYPE_CODES.TXT] },
  { label: '_mta-sts', types: [TYPE_CODES.TXT] },
  { label: 'mail', types: [TYPE_CODES.A, TYPE_CODES.AAAA] },
  { label: 'www', types: [TYPE_CODES.A, TYPE_CODES.AAAA, TYPE_CODES.CNAME] },
];

/** What a move must not lose and was not found: asked of every authority all the same, since one may have what another has not. */
export function keyQuestions(zone: Name, sets: readonly RRset[]): SurveyQuestion[] {
  const known = new Set(sets.map((set) => rrsetKey(set.owner, set.type)));
  return MUST_NOT_BE_LOST.flatMap(({ label, types }) => types.map((type) => ({ name: label === '' ? zone : zone.child(label), type }))).filter(
    ({ name, type }) => !known.has(rrsetKey(name, type)),
  );
}

/** Names of websites and mail, the underscored ones left out: they are given to a zone of their own now and then. */
const LIKELY = [...CATALOGUE['website']!, ...CATALOGUE['mail']!].filter((label) => !label.includes('_'));

/**
 * Names at which a zone of its own may begin that this one does not delegate: every name found and those above it, and with
 * `likely` those that often have one. What stands at or below a delegation is the child's.
 */
export function possibleCuts(zone: Name, sets: readonly RRset[], likely: boolean): Name[] {
  const cuts = new NameMap<true>();
  for (const set of sets) if (set.type === TYPE_CODES.NS && !set.owner.equals(zone)) cuts.set(set.owner, true);
  const names = new NameMap<true>();
  for (const name of [...sets.map((set) => set.owner), ...(likely ? LIKELY.map((label) => zone.child(label)) : [])]) {
    for (let at = name; at.isBelow(zone) && !names.has(at); at = at.parent) if (!at.isWildcard) names.set(at, true);
  }
  const isDelegated = (name: Name): boolean => {
    for (let at = name; at.isBelow(zone); at = at.parent) if (cuts.has(at)) return true;
    return false;
  };
  return [...names.names()].filter((name) => !isDelegated(name));
}
