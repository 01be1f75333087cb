import { AuthorityAnswer, Message, Name, RCODE, ServerAt, TYPE_CODES, namesIn, readSoa } from '@wanderon/core';
import { DnsClient, limited } from '@wanderon/net';
import { observed } from '../network/network';

/** What each server says of the zone: its SOA over UDP and TCP, the NS set, and whether it holds keys. */
export async function askAuthorities(client: DnsClient, zone: Name, servers: readonly ServerAt[], signal: AbortSignal | undefined): Promise<AskedAuthorities> {
  const heard = new Map<string, Message>();
  const answers = await limited(servers, 8, (one) => askAuthority(client, zone, one, signal, (type, message) => heard.set(`${one.address} ${type}`, message)));
  return { answers, heard: (address, name, type) => (name.equals(zone) ? heard.get(`${address} ${type}`) : undefined) };
}

export interface AskedAuthorities {
  readonly answers: AuthorityAnswer[];
  /** What a server answered here, so that nothing is asked of it twice. */
  readonly heard: (address: string, name: Name, type: number) => Message | undefined;
}

async function askAuthority(
  client: DnsClient,
  zone: Name,
  { server, address }: ServerAt,
  signal: AbortSignal | undefined,
  hear: (type: number, message: Message) => void,
): Promise<AuthorityAnswer> {
  const at = { address };
  const nothing: AuthorityAnswer = {
    server,
    address,
    authoritative: false,
    serial: undefined,
    transferred: false,
    problem: undefined,
    responded: false,
    tcpProblem: undefined,
    nameservers: [],
    signed: false,
  };
  const soa = await observed(client.ask(at, zone, TYPE_CODES.SOA, { signal }));
  if (!soa.ok) return { ...nothing, problem: soa.problem };
  hear(TYPE_CODES.SOA, soa.value);
  const record = soa.value.answers.find((one) => one.type === TYPE_CODES.SOA && one.owner.equals(zone));
  const authoritative = soa.value.rcode === RCODE.NOERROR && record !== undefined;
  const serial = record && readSoa(record.data).serial;
  if (!authoritative) return { ...nothing, responded: true, serial, problem: 'it is lame: it does not answer for the zone' };
  const [tcp, ns, keys] = await Promise.all([
    observed(client.ask(at, zone, TYPE_CODES.SOA, { over: 'tcp', tries: 1, signal })),
    observed(client.ask(at, zone, TYPE_CODES.NS, { signal })),
    observed(client.ask(at, zone, TYPE_CODES.DNSKEY, { signal })),
  ]);
  if (ns.ok) hear(TYPE_CODES.NS, ns.value);
  if (keys.ok) hear(TYPE_CODES.DNSKEY, keys.value);
  const own = ns.ok ? ns.value.answers.filter((one) => one.type === TYPE_CODES.NS && one.owner.equals(zone)) : [];
  return {
    ...nothing,
    authoritative,
    ...(!soa.value.authoritative && { withoutAuthority: true }),
    serial,
    responded: true,
    tcpProblem: tcp.ok ? undefined : tcp.problem,
    nameservers: own.flatMap((one) => namesIn(one.type, one.data)).map((name) => name.toString()),
    signed: keys.ok && keys.value.answers.some((one) => one.type === TYPE_CODES.DNSKEY && one.owner.equals(zone)),
  };
}
