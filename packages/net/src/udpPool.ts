import { randomInt } from 'node:crypto';
import { Socket, createSocket } from 'node:dgram';
import { NetError } from './netError';

/** Sockets that are open to one server at a time; each has a port of the system's choosing. */
const OPEN = 8;
/** Questions after which a socket, and with it its port, is given up. */
const USES = 400;
/** Milliseconds without a question after which sockets close. */
const IDLE = 2000;

/** Takes what arrives under an id; true where it was the answer. */
export type Taker = (raw: Uint8Array) => boolean;

interface Waiting {
  readonly take: Taker;
  readonly fail: (error: NetError) => void;
}

interface Pooled {
  readonly socket: Socket;
  readonly waiting: Map<number, Waiting>;
  ready: boolean;
  readonly unsent: Uint8Array[];
  uses: number;
  posted: boolean;
  retired: boolean;
  /** Closed, by an error or because nobody waits on it any more. */
  closed: boolean;
}

/**
 * Sends questions to one address from a few sockets at random ports. A connected socket takes packets from that address
 * only, and hears of a closed port at once; the ids on one socket are random and never in use twice (RFC 5452 §4).
 */
export class UdpPool {
  private sockets: Pooled[] = [];
  private readonly posted: Pooled[] = [];
  private idle: NodeJS.Timeout | undefined;

  constructor(
    private readonly address: string,
    private readonly port: number,
    private readonly onEmpty: () => void,
  ) {}

  /** Sends what `prepare` makes of a free id, and hands over what comes back under it until `done` is called. */
  send(prepare: (id: number) => Uint8Array, waiting: Waiting): () => void {
    const pooled = this.pick();
    let id = randomInt(0x10000);
    while (pooled.waiting.has(id)) id = randomInt(0x10000);
    pooled.waiting.set(id, waiting);
    pooled.uses += 1;
    pooled.socket.ref();
    const wire = prepare(id);
    pooled.unsent.push(wire);
    if (pooled.ready) this.post(pooled);
    return () => {
      pooled.waiting.delete(id);
      if (pooled.waiting.size === 0) this.rest(pooled);
    };
  }

  private pick(): Pooled {
    clearTimeout(this.idle);
    for (const pooled of this.sockets) if (pooled.uses >= USES) pooled.retired = true;
    this.sockets = this.sockets.filter((pooled) => {
      if (pooled.retired && pooled.waiting.size === 0) shut(pooled);
      return !pooled.retired;
    });
    // A new one is opened while those that are open are busy; which one of them is used is left to chance.
    const free = this.sockets.filter((pooled) => pooled.waiting.size === 0);
    if (free.length === 0 && this.sockets.length < OPEN) return this.open();
    const from = free.length > 0 ? free : this.sockets;
    return from[randomInt(from.length)]!;
  }

  private open(): Pooled {
    const socket = createSocket(this.address.includes(':') ? 'udp6' : 'udp4');
    const pooled: Pooled = { socket, waiting: new Map(), ready: false, unsent: [], uses: 0, posted: false, retired: false, closed: false };
    socket.on('message', (raw) => {
      if (raw.length < 12) return this.spread(pooled, raw);
      pooled.waiting.get((raw[0]! << 8) | raw[1]!)?.take(raw);
    });
    socket.on('error', (error) => {
      pooled.retired = true;
      this.sockets = this.sockets.filter((other) => other !== pooled);
      for (const waiting of [...pooled.waiting.values()]) waiting.fail(new NetError('unreachable', error.message));
      shut(pooled);
    });
    socket.connect(this.port, this.address, () => {
      pooled.ready = true;
      this.post(pooled);
    });
    this.sockets.push(pooled);
    return pooled;
  }

  /**
   * Sends at the end of this turn of the event loop what gathers until then: waking a server that sleeps is most of what
   * sending costs, and is then paid once for many questions.
   */
  private post(pooled: Pooled): void {
    if (this.posted.length === 0) setImmediate(() => this.flush());
    if (!pooled.posted) this.posted.push(pooled);
    pooled.posted = true;
  }

  private flush(): void {
    for (const pooled of this.posted.splice(0)) {
      pooled.posted = false;
      const wires = pooled.unsent.splice(0);
      // Whoever asked may have given up meanwhile, and the socket with it.
      if (!pooled.closed && pooled.waiting.size > 0) for (const wire of wires) pooled.socket.send(wire);
    }
  }

  /** What is too short to have an id is for the one who waits; where several do it is nobody's, and must not fail them all. */
  private spread(pooled: Pooled, raw: Uint8Array): void {
    if (pooled.waiting.size === 1) for (const waiting of [...pooled.waiting.values()]) waiting.take(raw);
  }

  private rest(pooled: Pooled): void {
    if (pooled.retired) return shut(pooled);
    if (this.sockets.some((other) => other.waiting.size > 0)) return;
    clearTimeout(this.idle);
    this.idle = setTimeout(() => this.close(), IDLE);
    this.idle.unref();
    for (const other of this.sockets) other.socket.unref();
  }

  private close(): void {
    for (const pooled of this.sockets.splice(0)) shut(pooled);
    this.onEmpty();
  }
}

function shut(pooled: Pooled): void {
  if (pooled.closed) return;
  pooled.closed = true;
  pooled.socket.close();
}
