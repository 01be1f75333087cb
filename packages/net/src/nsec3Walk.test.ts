import { createSocket } from 'node:dgram';
import { AddressInfo } from 'node:net';
import { Message, Name, decodeMessage, encodeMessage, parseRdata, reply } from '@wanderon/core';
import { DnsClient } from './client';
import { walkNsec3 } from './nsec3Walk';
import { RouteTable } from './routes';

const ZONE = Name.parse('reed-bank.example.');

/** A server that answers everything with what `answer` makes of the question. */
async function served<T>(answer: (request: Message) => Message, use: (client: DnsClient) => Promise<T>): Promise<T> {
  const socket = createSocket('udp4');
  socket.on('message', (raw, from) => socket.send(encodeMessage(answer(decodeMessage(new Uint8Array(raw)))), from.port, from.address));
  await new Promise<void>((resolve) => socket.bind(0, '127.0.0.1', resolve));
  const routes = new RouteTable([{ address: '192.0.2.1', port: 53, transport: 'udp', toAddress: '127.0.0.1', toPort: (socket.address() as AddressInfo).port }]);
  try {
    return await use(new DnsClient(routes));
  } finally {
    socket.close();
  }
}

const denial = (text: string): Message['authorities'] => [
  { owner: ZONE.child(text.split(' ')[0]!), type: 50, cls: 1, ttl: 60, data: parseRdata(50, text.slice(text.indexOf(' ') + 1)) },
];

describe('collecting hashes', () => {
  it('ends at a server that says the same of every name', async () => {
    let asked = 0;
    const walked = await served(
      (request) => {
        asked += 1;
        return reply(request, {
          rcode: 3,
          authoritative: true,
          authorities: denial('0p9mhaveqvm6t7vbl5lop2u3t2rp3tom 1 0 0 - 2p9mhaveqvm6t7vbl5lop2u3t2rp3tom A'),
        });
      },
      (client) => walkNsec3(client, { address: '192.0.2.1' }, ZONE, []),
    );
    expect([walked!.complete, walked!.sets, asked < 200]).toEqual([false, [], true]);
    expect(walked!.problems.join(' ')).toMatch(/Not every hash between two names could be seen/);
  });

  it('is undefined where nothing is denied by hash, and stops when told to', async () => {
    await served(
      (request) => reply(request, { rcode: 3, authoritative: true }),
      async (client) => {
        expect(await walkNsec3(client, { address: '192.0.2.1' }, ZONE, [])).toBeUndefined();
        const controller = new AbortController();
        controller.abort();
        await expect(walkNsec3(client, { address: '192.0.2.1' }, ZONE, [], { signal: controller.signal })).rejects.toMatchObject({ kind: 'cancelled' });
      },
    );
  });
});
