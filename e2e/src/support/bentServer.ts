import { createSocket, Socket as UdpSocket } from 'node:dgram';
import { Server, connect, createServer } from 'node:net';
import { spawnSync } from 'node:child_process';
import { Message, decodeMessage, encodeMessage } from '@wanderon/core';

/** What becomes of a server's answer to a question; undefined: nothing is sent. */
export type Bend = (request: Message, answer: Message) => Message | undefined;

/** Stands before a real server, at an address of its own, and bends what that answers over UDP; over TCP so many octets of each answer go through. */
export class BentServer {
  private readonly udp: UdpSocket = createSocket('udp4');
  private tcp: Server | undefined;

  private constructor(
    private readonly address: string,
    private readonly behind: string,
    private readonly bend: Bend,
  ) {}

  static async open(address: string, behind: string, bend: Bend, options: { readonly tcp: number }): Promise<BentServer> {
    spawnSync('ip', ['address', 'add', `${address}/32`, 'dev', 'lo']);
    const server = new BentServer(address, behind, bend);
    server.udp.on('message', (raw, from) => server.forward(raw, (answer) => server.udp.send(answer, from.port, from.address)));
    await new Promise<void>((resolve) => server.udp.bind(53, address, resolve));
    if (options.tcp === 0) return server;
    server.tcp = createServer((socket) => {
      const upstream = connect(53, behind);
      socket.on('error', () => upstream.destroy()).pipe(upstream);
      let left = options.tcp;
      upstream.on('error', () => socket.destroy());
      upstream.on('end', () => socket.end());
      upstream.on('data', (chunk: Buffer) => {
        if (left > 0) socket.write(chunk.subarray(0, left));
        left -= chunk.length;
        if (left > 0) return;
        socket.end();
        upstream.destroy();
      });
    });
    await new Promise<void>((resolve) => server.tcp!.listen(53, address, resolve));
    return server;
  }

  private forward(raw: Buffer, send: (answer: Uint8Array) => void): void {
    const once = createSocket('udp4');
    once.once('message', (answer) => {
      once.close();
      const bent = this.bend(decodeMessage(new Uint8Array(raw)), decodeMessage(new Uint8Array(answer)));
      if (bent) send(encodeMessage(bent));
    });
    once.on('error', () => once.close());
    once.send(raw, 53, this.behind);
  }

  close(): void {
    this.udp.close();
    this.tcp?.close();
    spawnSync('ip', ['address', 'del', `${this.address}/32`, 'dev', 'lo']);
  }
}
