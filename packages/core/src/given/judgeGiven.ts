import { Name, NameError } from '../dns/name';
import { RRset, RRsetText, rrsetFromText, rrsetToText } from '../dns/record';
import { TextError } from '../dns/token';
import { Scope, chosenNames } from '../move/scope';
import { setKey } from '../move/plan';
import { isLead } from '../rebuild/leads';
import { presentWeb } from '../rebuild/presentWeb';
import { otherUses, usesWords } from '../rebuild/otherUses';
import { listWords, plain } from '../survey/words';
import { GivenItem, GivenUse, JudgedItem, givenKey } from './givenItem';

/** What a given thing is held against: what the survey found, and where the domain is now. */
export interface GivenSubject {
  readonly zone: Name;
  readonly scope: Scope;
  readonly found: readonly RRset[];
  /** Nameservers that the domain is delegated to. */
  readonly nameservers: readonly string[];
  readonly fronted?: readonly RRsetText[];
}

/** What the reader says of everything that it read out of prose; by itself no reason to ask, since each find is looked at in a short list. */
const OF_A_SENTENCE = 'It was read out of a sentence.';
/** Types that are no part of a zone which somebody rebuilds: the registry holds a DS, the host writes the SOA. */
const NOT_OURS: ReadonlyMap<string, string> = new Map([
  ['DS', 'goes to the registrar, once the zone is signed at the new host'],
  ['SOA', 'the new host writes it itself'],
  ['DNSKEY', 'the new host writes it itself'],
  ['RRSIG', 'the new host writes it itself'],
]);
/** Types of which several values stand side by side at one name. */
const BESIDE: ReadonlySet<string> = new Set(['TXT', 'CAA', 'A', 'AAAA']);

/**
 * What each given thing is for, and whether it is taken without asking. Asked about is whatever was read with a doubt, and whatever would
 * change something else than the website: mail, who may send, a name that another service uses, a name that catches all others.
 *
 *     @ A 203.0.113.10         // website: "the website's address"
 *     @ MX 10 mx.host.example  // record, asked: "Mail goes to mx1.post.example now. Should it go to this one?"
 */
export function judgeGiven(items: readonly GivenItem[], subject: GivenSubject): JudgedItem[] {
  if (items.length === 0) return [];
  const seen = new Set<string>();
  // Of a text that names both sets, those of the present one say what is.
  const isMixed = items.some((item) => isServer(item) && !isAmong(subject.nameservers, item.data));
  const judge = judgeOf(subject, isMixed);
  return items.flatMap((item) => {
    const key = givenKey(item);
    if (seen.has(key)) return [];
    seen.add(key);
    const { use, words, question } = judge(item);
    const doubts = item.doubts.filter((one) => one !== OF_A_SENTENCE);
    const asked = [...doubts, ...(question === undefined ? [] : [question])].join(' ') || undefined;
    return [{ ...item, use, words, question: use === 'none' ? undefined : asked, isTaken: use !== 'none' && (item.taken ?? asked === undefined) }];
  });
}

const isServer = ({ kind, type, owner }: GivenItem): boolean => kind === 'nameserver' || (kind === 'record' && type === 'NS' && owner === '@');

const isAmong = (names: readonly string[], name: string): boolean => names.some((one) => one.toLowerCase() === name.toLowerCase());

interface Judged {
  readonly use: GivenUse;
  readonly words: string;
  readonly question?: string | undefined;
}

function judgeOf({ zone, scope, found, nameservers, fronted }: GivenSubject, isMixed: boolean): (item: GivenItem) => Judged {
  const present = presentWeb(zone, found, [], fronted);
  const sets = new Map(found.map((set) => [setKey(set.owner.toString(), rrsetToText(set).type), rrsetToText(set)]));
  const uses = otherUses(zone, found);
  const sites = new Set(scope.kind === 'names' ? chosenNames(scope.names).map((name) => `${name}.`) : [zone.toString(), `www.${zone.toString()}`]);
  const isPresent = (address: string): boolean => present?.addresses.includes(address) ?? false;

  const nameserver = (data: string): Judged => {
    if (scope.kind === 'names') return { use: 'none', words: 'nameserver: this move is about single names' };
    if (isAmong(nameservers, data)) return { use: isMixed ? 'none' : 'nameserver', words: 'nameserver that the domain has now' };
    return { use: 'nameserver', words: 'new nameserver' };
  };
  const address = (data: string): Judged =>
    isPresent(data) ? { use: 'none', words: 'where the website is now' } : { use: 'website', words: 'address of the website' };
  const lead = (owner: Name, { type, data }: GivenItem): Judged => {
    const name = owner.toString().toLowerCase();
    const shown = owner.relativeTo(zone);
    const stands = sets.get(setKey(name, type));
    if (stands?.data.some((one) => one.toLowerCase() === data.toLowerCase())) return { use: 'none', words: 'stands there already' };
    if (sites.has(name)) {
      if (type !== 'CNAME')
        return isPresent(data)
          ? { use: 'none', words: 'where the website is now' }
          : { use: 'website', words: `address of ${shown === '@' ? 'the website' : shown}` };
      const isOwn = Name.parse(data).isAtOrBelow(zone);
      if (owner.equals(zone))
        return {
          use: 'website',
          words: 'alias of the domain itself',
          question: 'An alias at the domain itself is taken by few DNS hosts. Does the new one take it?',
        };
      return { use: isOwn ? 'record' : 'website', words: isOwn ? `${shown} follows ${plain(data)}` : `alias of ${shown}` };
    }
    if (shown.startsWith('*') && !stands)
      return {
        use: 'record',
        words: 'answers for every name that has no record',
        question: 'Every name without a record of its own would lead there. Should it?',
      };
    const other = stands || sets.has(setKey(name, 'A')) || sets.has(setKey(name, 'CNAME')) ? uses(owner) : [];
    if (other.length > 0)
      return { use: 'record', words: `leads ${shown} there`, question: `${shown} has another use: ${usesWords(other)}. Should it lead there too?` };
    return { use: 'record', words: `leads ${shown} there` };
  };
  const record = (owner: Name, item: GivenItem): Judged => {
    const { type, data } = item;
    const shown = owner.relativeTo(zone);
    const stands = sets.get(setKey(owner.toString(), type))?.data ?? [];
    if (stands.includes(normal(owner, type, data))) return { use: 'none', words: 'stands there already' };
    const others = stands.map(plain);
    if (type === 'MX' && owner.equals(zone))
      return {
        use: 'record',
        words: 'where mail goes',
        question:
          others.length === 0
            ? 'The domain has no MX record now. Should its mail go there?'
            : `Mail goes to ${listWords(others.map((one) => one.replace(/^\d+ /, '')))} now. Should it go there instead?`,
      };
    if (type === 'TXT') {
      const kind = /^"?v=(spf1|dmarc1|dkim1)\b/i.exec(data)?.[1]?.toLowerCase();
      const before = kind === undefined ? undefined : stands.find((one) => new RegExp(`^"?v=${kind}\\b`, 'i').test(one));
      if (before !== undefined)
        return {
          use: 'record',
          words: `takes the place of ${kind === 'spf1' ? 'the SPF record' : `the ${kind!.slice(0, -1).toUpperCase()} record`}`,
          question: `${before} stands there now, and only one may. Should this take its place?`,
        };
      return { use: 'record', words: `text to add at ${shown}` };
    }
    if (stands.length > 0 && !BESIDE.has(type))
      return {
        use: 'record',
        words: `takes the place of the ${type} record of ${shown}`,
        question: `${shown} has ${listWords(others)} now. Should this take its place?`,
      };
    return { use: 'record', words: `record to add at ${shown}` };
  };

  return (item) => {
    if (item.kind === 'nameserver') return nameserver(item.data);
    if (item.kind === 'address') return address(item.data);
    const none = NOT_OURS.get(item.type);
    if (none !== undefined) return { use: 'none', words: none };
    const owner = Name.tryParse(item.owner, zone);
    if (!owner?.isAtOrBelow(zone)) return { use: 'none', words: 'of another domain' };
    if (item.type === 'NS' && owner.equals(zone)) return nameserver(item.data);
    if (
      scope.kind === 'names' &&
      isLead(item.type) &&
      !sites.has(owner.toString().toLowerCase()) &&
      !scope.names.includes(plain(owner.toString().toLowerCase()))
    )
      return { use: 'none', words: 'not one of the names of this move' };
    return isLead(item.type) ? lead(owner, item) : record(owner, item);
  };
}

/** A value as the survey prints it; as it stands where it cannot be read. */
export function normal(owner: Name, type: string, data: string): string {
  try {
    return rrsetToText(rrsetFromText({ owner: owner.toString(), type, ttl: 0, data: [data] })).data[0]!;
  } catch (error) {
    if (error instanceof NameError || error instanceof TextError || error instanceof RangeError) return data;
    throw error;
  }
}
