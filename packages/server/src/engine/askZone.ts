import {
  AnswerSight,
  MADE_BY_SIGNING,
  Message,
  Name,
  RCODE,
  RRset,
  SetKey,
  TYPE_CODES,
  TsigKey,
  ZoneAnswers,
  ZoneSight,
  groupRecords,
  keyOf,
  negativeTtl,
  ownerOf,
  printRdata,
  rcodeName,
  readSoa,
  typeCode,
  typeOf,
} from '@wanderon/core';
import { DnsClient, NetError, limited, transferZone } from '@wanderon/net';
import { observed, TRANSFER_BOUNDS } from '../network/network';

/** What one server said of a zone, or why it said nothing. */
export type Asked = { readonly sight: ZoneSight } | { readonly problem: string; readonly refused: boolean };

/** Questions to one server at a time. */
const AT_ONCE = 16;

/** Puts one question for each set to one address of a server, and its SOA: what a resolver that is led there would hear. */
export async function askZone(client: DnsClient, address: string, zone: Name, keys: readonly SetKey[]): Promise<Asked> {
  const soa = await observed(client.ask({ address }, zone, TYPE_CODES.SOA));
  if (!soa.ok) return { problem: soa.problem, refused: false };
  const denied = refusal(soa.value, zone);
  if (denied) return { problem: denied, refused: true };
  const own = soa.value.answers.find((record) => record.type === TYPE_CODES.SOA && record.owner.equals(zone));
  const refers = !soa.value.authoritative && isReferral(soa.value, zone);
  const sets = await askSets(client, address, zone, keys);
  return { sight: { serial: own ? readSoa(own.data).serial : null, refused: false, ...(refers && { refers }), sets } };
}

/** What a server answers of each set, by key in order; nothing of one of which it says nothing. */
export async function askSets(client: DnsClient, address: string, zone: Name, keys: readonly SetKey[]): Promise<Record<SetKey, AnswerSight>> {
  const answers = await limited(keys, AT_ONCE, async (key) => [key, await askSet(client, address, zone, key)] as const);
  return inOrder(answers.flatMap(([key, answer]) => (answer ? [[key, answer] as const] : [])));
}

/** Sets by key in the order of the keys, whoever told of them: the same sight is the same text. */
export function inOrder(sets: readonly (readonly [SetKey, AnswerSight])[]): Record<SetKey, AnswerSight> {
  return Object.fromEntries([...sets].sort(([a], [b]) => (a < b ? -1 : 1)));
}

/** A server that will not answer for the zone; one that refers to servers below the parent has turned, and is read as such. */
function refusal(message: Message, zone: Name): string | undefined {
  if (message.rcode === RCODE.REFUSED || message.rcode === RCODE.NOTAUTH) return `it answers ${rcodeName(message.rcode)}`;
  if (message.rcode !== RCODE.NOERROR && message.rcode !== RCODE.NXDOMAIN) return `it answers ${rcodeName(message.rcode)}`;
  // Resolvers take an answer for the name that was asked without the bit that claims authority; a survey tells of it.
  const answers = message.answers.some((record) => record.type === TYPE_CODES.SOA && record.owner.equals(zone));
  return message.authoritative || answers || isReferral(message, zone) ? undefined : 'it does not answer with authority';
}

function isReferral(message: Message, zone: Name): boolean {
  return message.authorities.some((record) => record.type === TYPE_CODES.NS && record.owner.equals(zone));
}

/** What a server answers of one set; undefined where it does not. */
export async function askSet(client: DnsClient, address: string, zone: Name, key: SetKey): Promise<AnswerSight | undefined> {
  const owner = Name.parse(ownerOf(key));
  const type = typeCode(typeOf(key))!;
  const asked = await observed(client.ask({ address }, owner, type));
  return asked.ok ? answerIn(asked.value, zone, owner, type) : undefined;
}

/** The data of the set under its own name, or its denial with the TTL of that; undefined where the answer says neither. */
export function answerIn(message: Message, zone: Name, owner: Name, type: number): AnswerSight | undefined {
  const { answers, authorities, additionals, rcode, authoritative } = message;
  if (rcode !== RCODE.NOERROR && rcode !== RCODE.NXDOMAIN) return undefined;
  const of = (records: Message['answers']): AnswerSight | undefined => {
    const there = records.filter((record) => record.type === type && record.owner.equals(owner));
    return there.length === 0
      ? undefined
      : { ttl: Math.min(...there.map((record) => record.ttl)), data: there.map((record) => printRdata(type, record.data)).sort() };
  };
  const own = of(answers);
  if (own) return own;
  // At and below a cut NS and glue stand in the other sections (RFC 1034 §4.3.2 step 3b).
  const refers = !authoritative && authorities.some((record) => record.type === TYPE_CODES.NS);
  if (refers) return of(authorities) ?? (authorities.some((record) => record.owner.equals(zone)) ? undefined : of(additionals));
  const soa = authorities.find((record) => record.type === TYPE_CODES.SOA);
  if (!authoritative && answers.length === 0 && !soa) return undefined;
  const alias = answers.filter((record) => record.type === TYPE_CODES.CNAME && record.owner.equals(owner));
  if (alias.length > 0) return { ttl: Math.min(...alias.map((record) => record.ttl)), data: [] };
  if (soa) return { ttl: negativeTtl(soa.ttl, readSoa(soa.data).minimum), data: [] };
  // A denial without an SOA is one, and is not remembered (RFC 2308 §5).
  return answers.length === 0 ? { ttl: 0, data: [] } : undefined;
}

/** A server's whole zone by transfer, as it would answer each of the questions; throws a NetError where it gives none. */
export async function transferSight(
  client: DnsClient,
  address: string,
  zone: Name,
  keys: readonly SetKey[],
  key: TsigKey,
): Promise<{ sight: ZoneSight; sets: RRset[] }> {
  const { records } = await transferZone(client, { address }, zone, { ...TRANSFER_BOUNDS, key });
  const all = groupRecords(records);
  const zoneAnswers = new ZoneAnswers(zone, all);
  const sets: Record<SetKey, AnswerSight> = {};
  const names = new Set([
    ...keys,
    ...all.filter((set) => !MADE_BY_SIGNING.has(set.type) && set.type !== TYPE_CODES.SOA).map((set) => keyOf(set.owner, set.type)),
  ]);
  for (const name of [...names].sort()) {
    const [owner, type] = [Name.parse(ownerOf(name)), typeCode(typeOf(name))!];
    const answer = zoneAnswers.ask(owner, type);
    const own = [...answer.answers, ...(answer.referral ? [answer.referral, ...answer.glue] : [])].find((set) => set.type === type && set.owner.equals(owner));
    const alias = answer.answers.find((set) => set.type === TYPE_CODES.CNAME && set.owner.equals(owner));
    if (own) sets[name] = { ttl: own.ttl, data: own.data.map((data) => printRdata(type, data)).sort() };
    else if (!answer.referral) sets[name] = { ttl: alias?.ttl ?? zoneAnswers.negative ?? 0, data: [] };
  }
  const soa = all.find((set) => set.type === TYPE_CODES.SOA && set.owner.equals(zone));
  return { sight: { serial: soa ? readSoa(soa.data[0]!).serial : null, refused: false, sets }, sets: all };
}

/** A transfer that a key opens, or undefined where this server gives none to us. */
export async function tryTransfer(client: DnsClient, address: string, zone: Name, keys: readonly SetKey[], key: TsigKey): Promise<ZoneSight | undefined> {
  try {
    return (await transferSight(client, address, zone, keys, key)).sight;
  } catch (error) {
    if (error instanceof NetError) return undefined;
    throw error;
  }
}
