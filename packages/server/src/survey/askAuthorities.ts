import { AuthorityAnswer, Name, RCODE, TYPE_CODES, namesIn, readSoa } from '@wanderon/core';
import { DnsClient, limited } from '@wanderon/net';
import { observed } from '../network/network';
import { ServerAt } from '../moves/leg';

/** What each server says of the zone: its SOA over UDP and TCP, the NS set, and whether it holds keys. */
export function askAuthorities(client: DnsClient, zone: Name, servers: readonly ServerAt[], signal: AbortSignal | undefined): Promise<AuthorityAnswer[]> {
  return limited(servers, 8, (one) => askAuthority(client, zone, one, signal));
}

async function askAuthority(client: DnsClient, zone: Name, { server, address }: ServerAt, signal: AbortSignal | undefined): Promise<AuthorityAnswer> {
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
  const record = soa.value.answers.find((one) => one.type === TYPE_CODES.SOA && one.owner.equals(zone));
  const authoritative = soa.value.authoritative && soa.value.rcode === RCODE.NOERROR && record !== undefined;
  const serial = record && readSoa(record.data).serial;
  if (!authoritative) return { ...nothing, responded: true, serial, problem: 'it is lame: it does not answer with authority' };
  const [tcp, ns, keys] = await Promise.all([
    observed(client.ask(at, zone, TYPE_CODES.SOA, { over: 'tcp', tries: 1, signal })),
    observed(client.ask(at, zone, TYPE_CODES.NS, { signal })),
    observed(client.ask(at, zone, TYPE_CODES.DNSKEY, { signal })),
  ]);
  const own = ns.ok ? ns.value.answers.filter((one) => one.type === TYPE_CODES.NS && one.owner.equals(zone)) : [];
  return {
    ...nothing,
    authoritative,
    serial,
    responded: true,
    tcpProblem: tcp.ok ? undefined : tcp.problem,
    nameservers: own.flatMap((one) => namesIn(one.type, one.data)).map((name) => name.toString()),
    signed: keys.ok && keys.value.answers.some((one) => one.type === TYPE_CODES.DNSKEY && one.owner.equals(zone)),
  };
}
