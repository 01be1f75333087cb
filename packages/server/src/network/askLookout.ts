import { Message, Name, RCODE } from '@wanderon/core';
import { NetError, Walker } from '@wanderon/net';
import { Lookout } from './lookout';
import { Network } from './network';

/** A server that refuses, fails or leads elsewhere is lame: a resolver asks the next one. */
function isOfZone({ rcode, authoritative, answers }: Message): boolean {
  return (rcode === RCODE.NOERROR || rcode === RCODE.NXDOMAIN) && (authoritative || answers.length > 0);
}

interface Question {
  readonly name: Name;
  readonly type: number;
  /** With which of several servers what is asked afresh begins. */
  readonly turn?: number;
}

/** Milliseconds that a resolver is given for one answer. */
const PATIENCE = 4000;

/**
 * One question to a lookout; `walker`: finds the way for those that are asked afresh, and remembers it for one round. Throws a NetError where
 * no sound answer came.
 */
export async function askLookout(network: Network, lookout: Lookout, walker: Walker, { name, type, turn = 0 }: Question): Promise<Message> {
  const { address, over, tlsName, path } = lookout;
  if (over !== 'afresh') {
    const server = { address, ...(tlsName && { tlsName }), ...(path && { path }) };
    return network.client.ask(server, name, type, { recursive: true, timeout: PATIENCE, ...(over !== 'udp' && { over }) });
  }
  const { zone, servers } = await walker.serversFor(name);
  const all = servers.flatMap((server) => server.addresses);
  const addresses = all.map((_, index) => all[(index + turn) % all.length]!);
  let problem = new NetError('unreachable', `no server of ${zone.toString()} could be found`);
  for (const one of addresses) {
    try {
      const answer = await network.client.ask({ address: one }, name, type, { timeout: PATIENCE });
      if (isOfZone(answer)) return answer;
      problem = new NetError('refused', `${one} does not answer for ${zone.toString()}`);
    } catch (error) {
      if (!(error instanceof NetError)) throw error;
      problem = error;
    }
  }
  throw problem;
}
