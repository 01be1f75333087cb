import { createSocket, Socket as UdpSocket } from 'node:dgram';
import { AddressInfo, createServer, Server } from 'node:net';
import { WireError } from '@wanderon/core';
import { RouteTable, framed } from '@wanderon/net';

export interface Asked {
  readonly raw: Uint8Array;
  readonly transport: 'udp' | 'tcp';
}

/** Gives the messages to send back; none to stay silent. */
export type DnsHandler = (asked: Asked) => Promise<Uint8Array[]>;

/** Answers DNS on loopback ports for a documentation address, over UDP and TCP, and enters them into the route table. */
export class DnsListener {
  private constructor(
    readonly address: string,
    private readonly udp: UdpSocket,
    private readonly tcp: Server,
  ) {}

  static async open(address: string, routes: RouteTable, handler: DnsHandler): Promise<DnsListener> {
    const udp = createSocket('udp4');
    udp.on('message', (raw, from) => {
      handler({ raw: new Uint8Array(raw), transport: 'udp' }).then(
        (answers) => answers.forEach((answer) => udp.send(answer, from.port, from.address)),
        (error: unknown) => report(address, error),
      );
    });
    await new Promise<void>((resolve) => udp.bind(0, '127.0.0.1', resolve));
    const tcp = createServer((socket) => {
      let pending: Buffer = Buffer.alloc(0);
      socket.on('error', () => socket.destroy());
      socket.setTimeout(30_000, () => socket.destroy());
      socket.on('data', (chunk: Buffer) => {
        pending = Buffer.concat([pending, chunk]);
        while (pending.length >= 2 && pending.length >= 2 + pending.readUInt16BE(0)) {
          const length = pending.readUInt16BE(0);
          const raw = new Uint8Array(pending.subarray(2, 2 + length));
          pending = pending.subarray(2 + length);
          handler({ raw, transport: 'tcp' }).then(
            (answers) => answers.forEach((answer) => socket.writable && socket.write(framed(answer))),
            (error: unknown) => {
              report(address, error);
              socket.destroy();
            },
          );
        }
      });
    });
    await new Promise<void>((resolve) => tcp.listen(0, '127.0.0.1', resolve));
    const port = (tcp.address() as AddressInfo).port;
    routes.add({ address, port: 53, transport: 'udp', toAddress: '127.0.0.1', toPort: udp.address().port });
    routes.add({ address, port: 53, transport: 'tcp', toAddress: '127.0.0.1', toPort: port });
    return new DnsListener(address, udp, tcp);
  }

  close(): void {
    this.udp.close();
    this.tcp.close();
  }
}

function report(address: string, error: unknown): void {
  if (error instanceof WireError) return; // A message that cannot be read gets no answer.
  console.error(`${address}:`, error);
}
