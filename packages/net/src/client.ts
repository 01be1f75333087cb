import { randomInt } from 'node:crypto';
import { Duplex } from 'node:stream';
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
import { ConnectOptions, askHttps, openTcp, openTls } from './connect';
import { deadline } from './deadline';
import { EdnsHabits } from './ednsHabits';
import { framed, frames } from './framing';
import { hasher } from './hasher';
import { Limiter } from './limiter';
import { NetError } from './netError';
import { Pacer } from './pacer';
import { RouteTable } from './routes';
import { DEFAULT_PORTS, Over, ServerAddress, where } from './server';
import { StreamRoom } from './streamRoom';
import { UdpPool } from './udpPool';

export interface AskOptions {
  readonly key?: TsigKey | undefined;
  /** Milliseconds for the first try; each further one has half as much again. */
  readonly timeout?: number;
  readonly tries?: number;
  /** Asked before a question is sent again; false: it is not. */
  readonly mayRetry?: () => boolean;
  readonly over?: Over;
  readonly signal?: AbortSignal | undefined;
}

/** Seconds of the machine's clock: signatures are checked by servers that know no other (RFC 8945 §5.2.3). */
export type TransportTime = () => number;

const systemTime: TransportTime = () => Math.floor(Date.now() / 1000);

export interface ClientLimits {
  /** Questions in flight to one server. */
  readonly perServer: number;
  /** Questions in flight in all. */
  readonly inAll: number;
  /** Messages a second to one server, retries and transfers counted; Infinity for no pace. */
  readonly perSecond: number;
  /** Octets of all transfers in hand; where there are more, the largest one ends. */
  readonly inStreams: number;
}

const LIMITS: ClientLimits = { perServer: 64, inAll: 4096, perSecond: Infinity, inStreams: Infinity };

/** Octets of a UDP answer that is asked for where nothing else brings it (RFC 6891 §6.2.5). */
const IN_PIECES = 4096;

/** Times the silence that is waited for: so long may one answer over a connection take in all. */
const EXCHANGES = 3;

const RECURSIVE = { recursionDesired: true } as const;

/** A message ready to go, and what its answer is checked with. */
interface Prepared {
  readonly request: Message;
  readonly id: number;
  readonly wire: Uint8Array;
  readonly mac?: Uint8Array;
  readonly key?: TsigKey;
}

const RETRIED: ReadonlySet<string> = new Set(['timeout', 'cut', 'unreachable']);

/** Asks DNS servers over UDP, TCP, TLS or HTTPS; thousands of questions may be under way at once. */
export class DnsClient {
  private readonly pools = new Map<string, UdpPool>();
  private readonly limiter: Limiter;
  private readonly pacer: Pacer;
  private readonly room: StreamRoom;
  private readonly edns = new EdnsHabits(() => performance.now());

  constructor(
    readonly routes: RouteTable = new RouteTable(),
    private readonly time: TransportTime = systemTime,
    limits: Partial<ClientLimits> = {},
  ) {
    const { perServer, inAll, perSecond, inStreams } = { ...LIMITS, ...limits };
    this.room = new StreamRoom(inStreams);
    this.limiter = new Limiter(perServer, inAll);
    this.pacer = new Pacer(perSecond, Math.max(1, perSecond / 10), () => performance.now());
  }

  /** One question, answered; throws a NetError where no sound answer came. Any response code is an answer. */
  async ask(server: ServerAddress, name: Name, type: number, options: AskOptions & { recursive?: boolean } = {}): Promise<Message> {
    return this.exchange(server, query(name, type, options.recursive ? RECURSIVE : undefined), options);
  }

  /** Sends any message and gives the answer to it, its signature checked where a key is given. */
  exchange(server: ServerAddress, request: Message, options: AskOptions = {}): Promise<Message> {
    return this.limiter.run(`${server.address}/${server.port ?? ''}`, options.signal, () => this.tried(server, request, options));
  }

  /** Waits for the server's next turn. */
  private async turn({ address, port }: ServerAddress, signal: AbortSignal | undefined): Promise<void> {
    const wait = this.pacer.take(`${address}/${port ?? ''}`);
    if (wait <= 0) return;
    await new Promise<void>((resolve, reject) => {
      if (signal?.aborted) return reject(new NetError('cancelled', 'cancelled'));
      const cancel = (): void => {
        clearTimeout(timer);
        reject(new NetError('cancelled', 'cancelled'));
      };
      const timer = setTimeout(() => {
        signal?.removeEventListener('abort', cancel);
        resolve();
      }, wait);
      signal?.addEventListener('abort', cancel, { once: true });
    });
  }

  private async tried(server: ServerAddress, request: Message, options: AskOptions): Promise<Message> {
    const tries = options.tries ?? 2;
    const at = `${server.address}/${server.port ?? ''}`;
    let asked = this.edns.asked(at, request);
    let isAgain = false;
    for (let attempt = 1; ; attempt++) {
      try {
        await this.turn(server, options.signal);
        const answer: Message = await this.once(server, asked, options, 1.5 ** (attempt - 1));
        const bare: Message | undefined = isAgain ? undefined : this.edns.again(at, asked, answer);
        this.edns.learn(at, answer, isAgain);
        if (!bare) return answer;
        // RFC 6891 §7: a server that does not know EDNS is asked without it, at once.
        [asked, isAgain] = [bare, true];
        attempt -= 1;
      } catch (error) {
        // An update that went unanswered may have taken effect: whoever sent it looks first.
        if (!(error instanceof NetError) || !RETRIED.has(error.kind) || request.opcode === OPCODE.update || attempt >= tries || options.mayRetry?.() === false)
          throw error;
        const bare: Message | undefined = isAgain ? undefined : this.edns.again(at, asked, undefined);
        if (bare) [asked, isAgain] = [bare, true];
      }
    }
  }

  private async once(server: ServerAddress, request: Message, options: AskOptions, patience: number): Promise<Message> {
    const over = options.over ?? 'udp';
    if (over === 'https') {
      // RFC 8484 §4.1: an id of 0 lets caches on the way do their work.
      const prepared = this.prepare(request, 0, options.key);
      const raw = await askHttps(this.routes, server, prepared.wire, connecting(options, patience));
      return this.accept(raw, prepared, server) ?? astray(server);
    }
    if (over !== 'udp' || request.opcode === OPCODE.update) return this.overStream(server, request, options, over === 'tls' ? 'tls' : 'tcp', patience);
    const answer = await this.overUdp(server, request, options, (options.timeout ?? 1500) * patience);
    if (answer && !answer.truncated) return answer;
    try {
      return await this.overStream(server, request, options, 'tcp', patience);
    } catch (error) {
      if (!answer || !(error instanceof NetError) || !RETRIED.has(error.kind)) throw error;
      const larger = await this.inPieces(server, request, options);
      if (larger) return larger;
      throw new NetError('truncated', `${where(server)} has an answer that is too long for UDP, and takes no TCP (${error.message})`);
    }
  }

  /** The same question over UDP with room for what a network may carry in pieces: the last way to an answer where TCP is shut. */
  private async inPieces(server: ServerAddress, request: Message, options: AskOptions): Promise<Message | undefined> {
    if (!request.edns) return undefined;
    try {
      const answer = await this.overUdp(server, { ...request, edns: { ...request.edns, udpSize: IN_PIECES } }, options, options.timeout ?? 1500);
      return answer && !answer.truncated ? answer : undefined;
    } catch (error) {
      if (error instanceof NetError && error.kind !== 'cancelled') return undefined;
      throw error;
    }
  }

  /** A connection that takes one request and gives every message that comes back, for transfers; not more than `most` octets of them. */
  async *stream(server: ServerAddress, request: Message, options: AskOptions & { readonly most?: number } = {}): AsyncGenerator<Message, void> {
    await this.turn(server, options.signal);
    const prepared = this.prepare(request, randomInt(0x10000), options.key);
    const socket = await this.open(server, options.over === 'tls' ? 'tls' : 'tcp', connecting(options, 1));
    const guest = this.room.enter(() => socket.destroy());
    const crowded = (): NetError => new NetError('limit', `${where(server)} was sending more than there is room for beside other transfers`);
    try {
      socket.write(framed(prepared.wire));
      let priorMac = prepared.mac;
      let between: Uint8Array[] = [];
      let first = true;
      let octets = 0;
      for await (const raw of frames(socket, server)) {
        octets += raw.length;
        guest.take(raw.length);
        if (guest.isOut) throw crowded();
        if (options.most !== undefined && octets > options.most)
          throw new NetError('limit', `${where(server)} sent more than ${Math.round(options.most / 1_000_000)} MB`);
        const decoded = decode(raw, server);
        if (decoded.id !== prepared.id || !decoded.response) throw new NetError('malformed', `${where(server)} sent an answer to another question`);
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
    } catch (error) {
      throw guest.isOut ? crowded() : error;
    } finally {
      guest.leave();
      socket.destroy();
    }
  }

  private prepare(request: Message, id: number, key: TsigKey | undefined): Prepared {
    const wire = encodeMessage(request, id);
    if (!key) return { request, id, wire };
    const signed = signMessage(wire, key, this.time(), hasher);
    return { request, id, wire: signed.message, mac: signed.mac, key };
  }

  private verify(raw: Uint8Array, decoded: Message, key: TsigKey, server: ServerAddress, options: Parameters<typeof verifyMessage>[5]): Uint8Array {
    try {
      return verifyMessage(raw, decoded, key, this.time(), hasher, options);
    } catch (error) {
      if (!(error instanceof TsigError)) throw error;
      const tsigError = decoded.tsig ? readTsig(decoded)?.error : undefined;
      if (error.kind === 'time') throw new NetError('time', `${where(server)}: ${error.message}`, tsigError);
      if (error.kind === 'unsigned' && decoded.rcode !== RCODE.NOERROR)
        throw new NetError('refused', `${where(server)} refused: ${rcodeName(decoded.rcode)}, without signature`, decoded.rcode);
      throw new NetError(error.kind === 'key' ? 'key' : 'signature', `${where(server)}: ${error.message}`, tsigError);
    }
  }

  /** The message that `raw` holds if it answers what was asked. Throws a NetError where it cannot be read or its signature does not hold. */
  private accept(raw: Uint8Array, prepared: Prepared, server: ServerAddress): Message | undefined {
    const decoded = decode(raw, server);
    if (decoded.id !== prepared.id || !decoded.response || decoded.opcode !== prepared.request.opcode) return undefined;
    const asked = prepared.request.questions[0];
    const echoed = decoded.questions[0];
    // Some servers leave the question out of an error (RFC 5936 §2.2.1 has the same for transfers).
    if (asked && (echoed ? !(echoed.name.equals(asked.name) && echoed.type === asked.type && echoed.cls === asked.cls) : decoded.rcode === RCODE.NOERROR))
      return undefined;
    if (prepared.key) this.verify(raw, decoded, prepared.key, server, { priorMac: prepared.mac! });
    return decoded;
  }

  /** Undefined where the question does not fit into a packet. */
  private overUdp(server: ServerAddress, request: Message, options: AskOptions, timeout: number): Promise<Message | undefined> {
    const to = this.routes.resolve(server.address, server.port ?? DEFAULT_PORTS.udp, 'udp');
    const key = `${to.address}/${to.port}`;
    let pool = this.pools.get(key);
    if (!pool) this.pools.set(key, (pool = new UdpPool(to.address, to.port, () => this.pools.delete(key))));
    const { signal } = options;
    return new Promise((resolve, reject) => {
      if (signal?.aborted) return reject(new NetError('cancelled', 'cancelled'));
      let prepared: Prepared | undefined;
      const finish = (): void => {
        clearTimeout(timer);
        signal?.removeEventListener('abort', cancel);
        done();
      };
      const fail = (error: unknown): void => {
        finish();
        reject(error as Error);
      };
      const cancel = (): void => fail(new NetError('cancelled', 'cancelled'));
      const timer = setTimeout(() => fail(new NetError('timeout', `${where(server)} did not answer`)), timeout);
      signal?.addEventListener('abort', cancel, { once: true });
      const done = pool.send(
        (id) => {
          prepared = this.prepare(request, id, options.key);
          return prepared.wire;
        },
        {
          take: (raw) => {
            try {
              const answer = this.accept(raw, prepared!, server);
              if (!answer) return false;
              finish();
              resolve(answer);
              return true;
            } catch (error) {
              fail(error);
              return true;
            }
          },
          fail: (error) => fail(new NetError(error.kind, `${where(server)} cannot be reached: ${error.message}`)),
        },
      );
    });
  }

  private async overStream(server: ServerAddress, request: Message, options: AskOptions, over: 'tcp' | 'tls', patience: number): Promise<Message> {
    const prepared = this.prepare(request, randomInt(0x10000), options.key);
    const patient = connecting(options, patience);
    const whole = deadline(options.signal, EXCHANGES * patient.timeout, `${where(server)} took too long for one answer`);
    let socket: Duplex | undefined;
    try {
      socket = await this.open(server, over, { ...patient, signal: whole.signal });
      socket.write(framed(prepared.wire));
      for await (const raw of frames(socket, server)) {
        const answer = this.accept(raw, prepared, server);
        if (answer) return answer;
      }
      throw new NetError('cut', `${where(server)} closed the connection without an answer`);
    } catch (error) {
      throw whole.told(error);
    } finally {
      socket?.destroy();
    }
  }

  private open(server: ServerAddress, over: 'tcp' | 'tls', options: ConnectOptions): Promise<Duplex> {
    return (over === 'tls' ? openTls : openTcp)(this.routes, server, DEFAULT_PORTS[over], options);
  }
}

function connecting(options: AskOptions, patience: number): ConnectOptions {
  return { timeout: (options.timeout ?? 5000) * patience, signal: options.signal };
}

function astray(server: ServerAddress): never {
  throw new NetError('malformed', `${where(server)} sent an answer to another question`);
}

function decode(raw: Uint8Array, server: ServerAddress): Message {
  try {
    return decodeMessage(raw);
  } catch (error) {
    if (error instanceof WireError) throw new NetError('malformed', `${where(server)} sent a message that cannot be read: ${error.message}`);
    throw error;
  }
}
