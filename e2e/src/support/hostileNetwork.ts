import { randomBytes } from 'node:crypto';
import { createSocket } from 'node:dgram';
import { IncomingMessage, ServerResponse, createServer as createWebServer } from 'node:http';
import { AddressInfo, Server, Socket, createServer } from 'node:net';
import { createServer as createSecureServer, request as ask } from 'node:https';
import { gzipSync } from 'node:zlib';
import { Message, Name, RCODE, ResourceRecord, TYPE_CODES, decodeMessage, encodeMessage, groupRecords, parseZoneFile, reply } from '@wanderon/core';
import { Lab, RDAP } from '@wanderon/lab';

/** What an authority does with what it is asked; nothing: it is silent. */
interface Authority {
  readonly udp?: (asked: Message, send: (answer: Uint8Array) => void) => void;
  readonly tcp?: (asked: Message, socket: Socket) => void;
  /** What the parent delegates to in the place of a server of the domain's own. */
  readonly delegatedTo?: readonly string[];
}

/** A domain that somebody has set up against whoever looks at it. */
export interface HostileDomain {
  /** Without the final dot. */
  readonly name: string;
  readonly does: string;
}

const ENDING = 'example.';
/** Addresses of the authorities and pages, one after the other. */
const FIRST = 0x64;
const STRANGERS = 'strangers.example.';

const records = (zone: string, text: string): ResourceRecord[] => [...parseZoneFile(text, Name.parse(zone)).records];

/** Answers for a zone of a few records, as any authority would. */
function honest(zone: string, text: string): (asked: Message) => Message {
  const all = records(zone, text);
  const soa = all.filter((record) => record.type === TYPE_CODES.SOA);
  return (asked) => {
    const { name, type } = asked.questions[0]!;
    const here = all.filter((record) => record.owner.equals(name));
    const answers = here.filter((record) => record.type === type || record.type === TYPE_CODES.CNAME);
    return reply(asked, {
      authoritative: true,
      rcode: here.length > 0 ? RCODE.NOERROR : RCODE.NXDOMAIN,
      answers,
      authorities: answers.length > 0 ? [] : soa,
    });
  };
}

const head = (zone: string): string => `@ 300 SOA ns.${zone} post.${zone} 7 7200 900 1209600 300\n@ 300 NS ns.${zone}\n`;
const framed = (message: Uint8Array): Buffer => Buffer.concat([Buffer.from([message.length >> 8, message.length & 255]), message]);

/** Sends for as long as the other end takes it, and no faster. */
function without(end: Socket, next: () => Buffer): void {
  const more = (): void => {
    while (!end.destroyed && end.write(next()));
  };
  end.on('drain', more);
  more();
}

/** A connection that is kept alive by an octet now and then. */
function trickle(end: Socket | ServerResponse, octet: () => string): void {
  const timer = setInterval(() => end.write(octet()), 250);
  end.on('close', () => clearInterval(timer));
}

/** The authorities, by what their domain is called. */
function authorities(countStranger: () => void): Readonly<Record<string, Authority & { readonly does: string }>> {
  const zone = (name: string): string => `${name}.${ENDING}`;
  const plain = (name: string, more: string): Authority => {
    const answer = honest(zone(name), `${head(zone(name))}${more}`);
    return {
      udp: (asked, send) => send(encodeMessage(answer(asked))),
      tcp: (asked, socket) => void socket.write(framed(encodeMessage(answer(asked)))),
    };
  };
  const transfer = (name: string, body: (index: number) => string, octets: number): Authority => {
    const { udp } = plain(name, '@ 300 A 192.0.2.9\n');
    const soa = records(zone(name), head(zone(name)))[0]!;
    return {
      udp: udp!,
      tcp: (asked, socket) => {
        if (asked.questions[0]!.type !== TYPE_CODES.AXFR) return void plain(name, '').tcp!(asked, socket);
        let index = 0;
        const one = (answers: readonly ResourceRecord[]): Buffer => framed(encodeMessage(reply(asked, { authoritative: true, answers: [...answers] })));
        socket.write(one([soa]));
        without(socket, () => {
          const lines: string[] = [];
          for (let length = 0; length < octets; length += lines.at(-1)!.length) lines.push(body(index++));
          return one(records(zone(name), lines.join('\n')));
        });
      },
    };
  };
  const refers = (to: (asked: Message) => readonly string[], below: (name: Name) => Name, seen = (): void => undefined): Authority => ({
    udp: (asked, send) => {
      seen();
      const owner = below(asked.questions[0]!.name);
      const ns = to(asked).map((target) => ({ owner, type: TYPE_CODES.NS, cls: 1, ttl: 300, data: Name.parse(target).wire }));
      send(encodeMessage(reply(asked, { authorities: ns })));
    },
  });
  let fanned = 0;
  const fan = (): string[] => Array.from({ length: 12 }, () => `n${fanned++}.${STRANGERS}`);
  return {
    'cut-answers': {
      does: 'sends every answer cut off, and the whole of it an octet at a time',
      udp: (asked, send) => send(encodeMessage(reply(asked, { truncated: true }))),
      tcp: (_asked, socket) => {
        socket.write(Buffer.from([0xea, 0x60]));
        trickle(socket, () => '\0');
      },
    },
    'wrong-ids': {
      does: 'answers two hundred times with ids that were not asked',
      udp: (asked, send) => {
        const answer = encodeMessage(reply(asked, { authoritative: true }));
        for (let i = 1; i <= 200; i++) send(Uint8Array.from([...randomBytes(2), ...answer.subarray(2)]));
      },
    },
    'endless-transfer': { does: 'transfers without end', ...transfer('endless-transfer', (index) => `n${index} 300 A 192.0.2.${index % 250}`, 12_000) },
    'huge-transfer': {
      does: 'transfers texts of sixty kilobytes without end',
      ...transfer('huge-transfer', (index) => `t${index} 300 TXT ${Array.from({ length: 230 }, () => `"${'x'.repeat(255)}"`).join(' ')}`, 50_000),
    },
    'fans-out': { does: 'is delegated to a dozen servers elsewhere, each of which is a dozen others', delegatedTo: fan() },
    strangers: { does: 'refers on from there', ...refers(fan, (name) => name, countStranger) },
    silent: { does: 'takes connections and says nothing', tcp: () => undefined },
    'alias-chain': {
      does: 'leads from each name to the next',
      udp: (asked, send) => {
        const { name } = asked.questions[0]!;
        const data = Name.parse(`a${randomBytes(6).toString('hex')}.${zone('alias-chain')}`).wire;
        send(encodeMessage(reply(asked, { authoritative: true, answers: [{ owner: name, type: TYPE_CODES.CNAME, cls: 1, ttl: 300, data }] })));
      },
    },
    restless: {
      does: 'answers every name and type with something else each time',
      udp: (asked, send) => {
        const { name, type } = asked.questions[0]!;
        const named = Name.parse(`m${randomBytes(5).toString('hex')}.${zone('restless')}`).wire;
        const data = type === TYPE_CODES.MX ? Buffer.concat([Buffer.from([0, 1]), named]) : type === TYPE_CODES.A ? randomBytes(4) : named;
        const sound: readonly number[] = [TYPE_CODES.MX, TYPE_CODES.A, TYPE_CODES.CNAME, TYPE_CODES.NS];
        const answers = sound.includes(type) ? [{ owner: name, type, cls: 1, ttl: 1, data }] : [];
        send(encodeMessage(reply(asked, { authoritative: true, answers })));
      },
    },
    'ever-deeper': {
      does: 'delegates every name to itself',
      ...refers(
        () => [`ns.${zone('ever-deeper')}`],
        (name) => name,
      ),
    },
    garbage: {
      does: 'answers with what is no message',
      udp: (asked, send) => {
        const answer = encodeMessage(reply(asked, { authoritative: true }));
        // A pointer to itself in the place of the answer's owner.
        const looped = Buffer.concat([answer, Buffer.from([0xc0, answer.length, 0, 1, 0, 1, 0, 0, 0, 9, 0, 4, 1, 2, 3, 4])]);
        looped[7] = 1;
        send(looped);
        send(randomBytes(900));
      },
    },
    'slow-page': { does: 'sends a page’s headers an octet at a time', ...plain('slow-page', '@ 300 A 203.0.113.180\nwww 300 A 203.0.113.180\n') },
    'swelling-page': { does: 'sends a page that swells to a gigabyte', ...plain('swelling-page', '@ 300 A 203.0.113.181\nwww 300 A 203.0.113.181\n') },
    'circling-page': { does: 'sends visitors on without end', ...plain('circling-page', '@ 300 A 203.0.113.182\nwww 300 A 203.0.113.182\n') },
    'odd-page': { does: 'has NULs and halves of characters in titles and headers', ...plain('odd-page', '@ 300 A 203.0.113.183\nwww 300 A 203.0.113.183\n') },
  };
}

/** A hundred megabytes of zeros, a hundred times over, in as many kilobytes. */
const SWELLING = gzipSync(Buffer.alloc(100_000_000));

const PAGES: readonly ((request: IncomingMessage, response: ServerResponse) => void)[] = [
  (_request, response) => {
    response.socket!.write('HTTP/1.1 200 OK\r\nx-slow: ');
    trickle(response.socket!, () => 'a');
  },
  (_request, response) => {
    response.writeHead(200, { 'content-type': 'text/html', 'content-encoding': 'gzip' });
    const more = (): void => {
      while (!response.destroyed && response.write(SWELLING));
    };
    response.on('drain', more);
    more();
  },
  (request, response) => void response.writeHead(302, { location: `${request.url}x` }).end(),
  (_request, response) => {
    response.socket!.write(
      Buffer.from(
        `HTTP/1.1 200 OK\r\nserver: a\xff\xfe\x01b\r\ncontent-type: text/html; charset=utf-16\r\nconnection: close\r\n\r\n<title>\0\xd8\0\xdc\0</title>${'<div>'.repeat(50_000)}`,
        'latin1',
      ),
    );
    response.socket!.end();
  },
];

/** What the registry's service says of some of them: nothing but a heading that never ends, itself, without end, or more than there is of it. */
const REGISTRY: Readonly<Record<string, (request: IncomingMessage, response: ServerResponse) => void>> = {
  silent: (_request, response) => {
    response.socket!.write('HTTP/1.1 200 OK\r\nx-slow: ');
    trickle(response.socket!, () => 'a');
  },
  restless: (request, response) => void response.writeHead(302, { location: `${request.url}` }).end(),
  garbage: (_request, response) => void response.end(`{"status":${'['.repeat(400_000)}${']'.repeat(400_000)}}`),
  'odd-page': (_request, response) =>
    void response.end(
      '{"objectClassName":"domain","status":["ac\\u0000tive","\\ud800"],"nameservers":[{"ldhName":"\\u0000"}],"entities":[{"roles":["registrar"],"handle":"a\\u0000b"}]}',
    ),
  'endless-transfer': PAGES[1]!,
};

/** Authorities and pages that are set up against whoever looks at them, below the lab's parent zone. */
export class HostileNetwork {
  readonly domains: HostileDomain[] = [];
  /** Questions that came to servers which neither a parent nor a zone names as its authorities. */
  toStrangers = 0;
  /** Domains of which the registry said what it says of them here. */
  readonly toRegistry = new Set<string>();

  /** How many of them the registry is set up against, too. */
  static readonly registries = Object.keys(REGISTRY).length;
  private readonly closing: (() => void)[] = [];

  static async open(lab: Lab): Promise<HostileNetwork> {
    const network = new HostileNetwork();
    let address = FIRST;
    for (const [name, { does, ...habits }] of Object.entries(authorities(() => (network.toStrangers += 1)))) {
      await network.authority(lab, `${name}.${ENDING}`, `203.0.113.${address++}`, habits);
      if (`${name}.${ENDING}` !== STRANGERS) network.domains.push({ name: `${name}.${ENDING}`.slice(0, -1), does });
    }
    for (const [index, page] of PAGES.entries()) await network.page(lab, `203.0.113.${180 + index}`, page);
    await network.registry(lab);
    return network;
  }

  close(): void {
    for (const close of this.closing) close();
  }

  private async authority(lab: Lab, zone: string, address: string, { udp, tcp, delegatedTo }: Authority): Promise<void> {
    const parent = [...lab.registry.zones.values()][0]!;
    const to = delegatedTo ?? [`ns.${zone}`];
    const text = `${to.map((name) => `@ 300 NS ${name}\n`).join('')}ns.${zone} 300 A ${address}\n`;
    for (const set of groupRecords(records(zone, text))) parent.put(set.owner, set.type, set.ttl, set.data);
    lab.registry.spread(parent);
    const socket = createSocket('udp4');
    socket.on('message', (raw, from) => {
      const asked = decodeMessage(new Uint8Array(raw));
      if (asked.questions.length > 0) udp?.(asked, (answer) => socket.send(answer, from.port, from.address, () => undefined));
    });
    await new Promise<void>((resolve) => socket.bind(0, '127.0.0.1', resolve));
    const server = createServer((connection) => {
      connection.on('error', () => connection.destroy());
      connection.once('data', (chunk: Buffer) => tcp?.(decodeMessage(new Uint8Array(chunk.subarray(2))), connection));
    });
    this.closing.push(() => socket.close());
    await this.listen(server);
    const { port } = server.address() as AddressInfo;
    lab.routes.add({ address, port: 53, transport: 'udp', toAddress: '127.0.0.1', toPort: socket.address().port });
    lab.routes.add({ address, port: 53, transport: 'tcp', toAddress: '127.0.0.1', toPort: port });
  }

  private async page(lab: Lab, address: string, answer: (request: IncomingMessage, response: ServerResponse) => void): Promise<void> {
    const plain = createWebServer(answer);
    // Over TLS nothing is said at all.
    const mute = createServer((connection) => connection.on('error', () => connection.destroy()));
    for (const [server, port] of [
      [plain, 80],
      [mute, 443],
    ] as const) {
      await this.listen(server);
      lab.routes.add({ address, port, transport: 'tcp', toAddress: '127.0.0.1', toPort: (server.address() as AddressInfo).port });
    }
  }

  /** Stands before the lab's registration data service, and lets through what is asked of any other domain. */
  private async registry(lab: Lab): Promise<void> {
    const behind = lab.routes.resolve(RDAP.address, 443, 'tcp');
    const server = createSecureServer({ SNICallback: (name, done) => done(null, lab.certificateFor(name)) }, (request, response) => {
      const name = /^\/domain\/([a-z-]+)\.example$/.exec(request.url ?? '')?.[1] ?? '';
      const hostile = REGISTRY[name];
      if (hostile) {
        this.toRegistry.add(name);
        return hostile(request, response);
      }
      const to = { host: behind.address, port: behind.port, path: request.url, headers: request.headers, servername: RDAP.name, rejectUnauthorized: false };
      ask(to, (answer) => answer.pipe(response.writeHead(answer.statusCode!, answer.headers)))
        .on('error', () => response.destroy())
        .end();
    });
    await this.listen(server);
    lab.routes.add({ address: RDAP.address, port: 443, transport: 'tcp', toAddress: '127.0.0.1', toPort: (server.address() as AddressInfo).port });
  }

  private async listen(server: Server): Promise<void> {
    const open = new Set<Socket>();
    server.on('connection', (socket: Socket) => {
      open.add(socket);
      socket.on('error', () => socket.destroy());
      socket.on('close', () => open.delete(socket));
    });
    this.closing.push(() => {
      server.close();
      for (const socket of open) socket.destroy();
    });
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  }
}
