import { randomInt } from 'node:crypto';
import { createSocket } from 'node:dgram';
import { connect, Socket } from 'node:net';
import {
  Message,
  Name,
  OPCODE,
  RCODE,
  TsigError,
  TsigKey,
  WireError,
  decodeMessage,
  encodeMessage,
  query,
  rcodeName,
  readTsig,
  signMessage,
  verifyMessage,
} from '@wanderon/core';
import { hasher } from './hasher';
import { NetError } from './netError';
import { RouteTable } from './routes';

export interface ServerAddress {
  readonly address: string;
  readonly port?: number;
}

export interface AskOptions {
  readonly key?: TsigKey | undefined;
  /** Milliseconds for one try. */
  readonly timeout?: number;
  readonly tries?: number;
  readonly tcp?: boolean;
  readonly signal?: AbortSignal | undefined;
}

/** Seconds of the machine's clock: signatures are checked by servers that know no other (RFC 8945 §5.2.3). */
export type TransportTime = () => number;

const systemTime: TransportTime = () => Math.floor(Date.now() / 1000);

/** Asks DNS servers over UDP, and over TCP where the answer did not fit (RFC 7766). */
export class DnsClient {
  constructor(
    readonly routes: RouteTable = new RouteTable(),
    private readonly time: TransportTime = systemTime,
  ) {}

  /** One question, answered; throws a NetError where no sound answer came. Any response code is an answer. */
  async ask(server: ServerAddress, name: Name, type: number, options: AskOptions & { recursive?: boolean } = {}): Promise<Message> {
    return this.exchange(server, query(name, type, { recursionDesired: options.recursive ?? false }), options);
  }

  /** Sends any message and gives the answer to it, its signature checked where a key is given. */
  async exchange(server: ServerAddress, request: Message, options: AskOptions = {}): Promise<Message> {
    const tries = options.tries ?? 2;
    let failure: NetError | undefined;
    for (let attempt = 0; attempt < tries; attempt++) {
      const prepared = this.prepare({ ...request, id: randomInt(0x10000) }, options.key);
      try {
        const overUdp = !options.tcp && prepared.wire.length <= 1232 && request.opcode !== OPCODE.update;
        if (overUdp) {
          const answer = await this.overUdp(server, prepared, options);
          if (!answer.truncated) return answer;
        }
        return await this.overTcp(server, prepared, options);
      } catch (error) {
        if (!(error instanceof NetError)) throw error;
        if (!['timeout', 'cut', 'unreachable'].includes(error.kind) || request.opcode === OPCODE.update) throw error;
        failure = error;
      }
    }
    throw failure!;
  }

  /** A connection that takes one request and gives every message that comes back, for transfers. */
  async *stream(server: ServerAddress, request: Message, options: AskOptions = {}): AsyncGenerator<Message, void> {
    const prepared = this.prepare({ ...request, id: randomInt(0x10000) }, options.key);
    const socket = await this.open(server, options);
    try {
      socket.write(framed(prepared.wire));
      let priorMac = prepared.mac;
      let between: Uint8Array[] = [];
      let first = true;
      for await (const raw of frames(socket, server)) {
        const decoded = decode(raw, server);
        if (decoded.id !== prepared.message.id || !decoded.response) throw new NetError('malformed', `${where(server)} sent an answer to another question`);
        if (options.key) {
          // RFC 8945 §5.3.1: the first answer is signed, later ones at least every hundredth.
          if (decoded.tsig || first || between.length >= 99) {
            priorMac = this.verify(raw, decoded, options.key, server, { priorMac: priorMac!, timersOnly: !first, between });
            between = [];
          } else between.push(raw);
        }
        first = false;
        yield decoded;
      }
      throw new NetError('cut', `${where(server)} closed the connection before the end`);
    } finally {
      socket.destroy();
    }
  }

  private prepare(request: Message, key: TsigKey | undefined): { message: Message; wire: Uint8Array; mac?: Uint8Array; key?: TsigKey } {
    const wire = encodeMessage(request);
    if (!key) return { message: request, wire };
    const signed = signMessage(wire, key, this.time(), hasher);
    return { message: request, wire: signed.message, mac: signed.mac, key };
  }

  private verify(raw: Uint8Array, decoded: Message, key: TsigKey, server: ServerAddress, options: Parameters<typeof verifyMessage>[5]): Uint8Array {
    try {
      return verifyMessage(raw, decoded, key, this.time(), hasher, options);
    } catch (error) {
      if (!(error instanceof TsigError)) throw error;
      const tsigError = decoded.tsig ? readTsig(decoded)?.error : undefined;
      if (error.kind === 'time') throw new NetError('time', `${where(server)}: ${error.message}`, tsigError);
      if (error.kind === 'unsigned' && decoded.rcode !== RCODE.NOERROR) {
        throw new NetError('refused', `${where(server)} refused: ${rcodeName(decoded.rcode)}, without signature`, decoded.rcode);
      }
      throw new NetError(error.kind === 'key' ? 'key' : 'signature', `${where(server)}: ${error.message}`, tsigError);
    }
  }

  private accept(raw: Uint8Array, prepared: { message: Message; mac?: Uint8Array; key?: TsigKey }, server: ServerAddress): Message | undefined {
    const decoded = decode(raw, server);
    if (decoded.id !== prepared.message.id || !decoded.response || decoded.opcode !== prepared.message.opcode) return undefined;
    const asked = prepared.message.questions[0];
    const echoed = decoded.questions[0];
    // Some servers leave the question out of an error (RFC 5936 §2.2.1 has the same for transfers).
    if (asked && (echoed ? !(echoed.name.equals(asked.name) && echoed.type === asked.type && echoed.cls === asked.cls) : decoded.rcode === RCODE.NOERROR))
      return undefined;
    if (prepared.key) this.verify(raw, decoded, prepared.key, server, { priorMac: prepared.mac! });
    return decoded;
  }

  private overUdp(
    server: ServerAddress,
    prepared: { message: Message; wire: Uint8Array; mac?: Uint8Array; key?: TsigKey },
    options: AskOptions,
  ): Promise<Message> {
    const to = this.routes.resolve(server.address, server.port ?? 53, 'udp');
    return new Promise((resolve, reject) => {
      const socket = createSocket(to.address.includes(':') ? 'udp6' : 'udp4');
      const finish = (act: () => void): void => {
        clearTimeout(timer);
        options.signal?.removeEventListener('abort', cancel);
        socket.removeAllListeners();
        socket.on('error', () => undefined);
        socket.close();
        act();
      };
      const cancel = (): void => finish(() => reject(new NetError('cancelled', 'cancelled')));
      const timer = setTimeout(() => finish(() => reject(new NetError('timeout', `${where(server)} did not answer`))), options.timeout ?? 1500);
      if (options.signal?.aborted) return cancel();
      options.signal?.addEventListener('abort', cancel);
      socket.on('error', (error) => finish(() => reject(new NetError('unreachable', `${where(server)} cannot be reached: ${error.message}`))));
      socket.on('message', (raw) => {
        try {
          const answer = this.accept(raw, prepared, server);
          if (answer) finish(() => resolve(answer));
        } catch (error) {
          finish(() => reject(error as Error));
        }
      });
      // A connected socket takes packets from that one address only, and hears of a closed port at once.
      socket.connect(to.port, to.address, () => socket.send(prepared.wire));
    });
  }

  private async overTcp(
    server: ServerAddress,
    prepared: { message: Message; wire: Uint8Array; mac?: Uint8Array; key?: TsigKey },
    options: AskOptions,
  ): Promise<Message> {
    const socket = await this.open(server, options);
    try {
      socket.write(framed(prepared.wire));
      for await (const raw of frames(socket, server)) {
        const answer = this.accept(raw, prepared, server);
        if (answer) return answer;
      }
      throw new NetError('cut', `${where(server)} closed the connection without an answer`);
    } finally {
      socket.destroy();
    }
  }

  private open(server: ServerAddress, options: AskOptions): Promise<Socket> {
    const to = this.routes.resolve(server.address, server.port ?? 53, 'tcp');
    return new Promise((resolve, reject) => {
      const socket = connect({ host: to.address, port: to.port });
      const cancel = (): void => void socket.destroy(new NetError('cancelled', 'cancelled'));
      if (options.signal?.aborted) cancel();
      options.signal?.addEventListener('abort', cancel, { once: true });
      socket.once('close', () => options.signal?.removeEventListener('abort', cancel));
      socket.setTimeout(options.timeout ?? 5000, () => socket.destroy(new NetError('timeout', `${where(server)} fell silent`)));
      socket.once('connect', () => resolve(socket));
      socket.once('error', (error) =>
        reject(error instanceof NetError ? error : new NetError('unreachable', `${where(server)} cannot be reached over TCP: ${error.message}`)),
      );
    });
  }
}

export function where(server: ServerAddress): string {
  return server.port === undefined || server.port === 53 ? server.address : `${server.address} port ${server.port}`;
}

function decode(raw: Uint8Array, server: ServerAddress): Message {
  try {
    return decodeMessage(raw);
  } catch (error) {
    if (error instanceof WireError) throw new NetError('malformed', `${where(server)} sent a message that cannot be read: ${error.message}`);
    throw error;
  }
}

/** Two octets of length before each message (RFC 1035 §4.2.2). */
export function framed(wire: Uint8Array): Uint8Array {
  const out = new Uint8Array(wire.length + 2);
  out[0] = wire.length >> 8;
  out[1] = wire.length & 0xff;
  out.set(wire, 2);
  return out;
}

async function* frames(socket: Socket, server: ServerAddress): AsyncGenerator<Uint8Array, void> {
  let pending: Buffer = Buffer.alloc(0);
  try {
    for await (const chunk of socket as AsyncIterable<Buffer>) {
      pending = pending.length === 0 ? chunk : Buffer.concat([pending, chunk]);
      while (pending.length >= 2 && pending.length >= 2 + pending.readUInt16BE(0)) {
        const length = pending.readUInt16BE(0);
        yield new Uint8Array(pending.subarray(2, 2 + length));
        pending = pending.subarray(2 + length);
      }
    }
  } catch (error) {
    if (error instanceof NetError || !(error instanceof Error) || !('code' in error)) throw error;
    throw new NetError('cut', `the connection to ${where(server)} broke: ${error.message}`);
  }
  if (pending.length > 0) throw new NetError('cut', `${where(server)} closed the connection inside a message`);
}
