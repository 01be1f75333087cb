import { connect as connectHttp2 } from 'node:http2';
import { request as requestHttp1 } from 'node:https';
import { Socket, connect as connectTcp } from 'node:net';
import { TLSSocket, connect as connectTls } from 'node:tls';
import { NetError } from './netError';
import { RouteTable } from './routes';
import { DEFAULT_PORTS, ServerAddress, where } from './server';

export interface ConnectOptions {
  /** Milliseconds of silence after which a connection is given up. */
  readonly timeout: number;
  readonly signal?: AbortSignal | undefined;
}

/** Opens a connection; it is destroyed with a NetError on silence and on cancelling. Throws a NetError. */
export async function openTcp(routes: RouteTable, server: ServerAddress, port: number, options: ConnectOptions): Promise<Socket> {
  const to = routes.resolve(server.address, server.port ?? port, 'tcp');
  const socket = connectTcp({ host: to.address, port: to.port, noDelay: true });
  await established(socket, 'connect', server, options);
  return socket;
}

/** RFC 7858 §3.1; `protocols` for ALPN. The certificate is checked where the server has a name (RFC 8310 §8.1). */
export async function openTls(
  routes: RouteTable,
  server: ServerAddress,
  port: number,
  options: ConnectOptions,
  protocols: readonly string[] = ['dot'],
): Promise<TLSSocket> {
  const plain = await openTcp(routes, server, port, options);
  const socket = connectTls({
    socket: plain,
    ALPNProtocols: [...protocols],
    rejectUnauthorized: server.tlsName !== undefined,
    ...(server.tlsName === undefined ? {} : { servername: server.tlsName }),
    ...(server.ca === undefined ? {} : { ca: server.ca }),
  });
  await established(socket, 'secureConnect', server, options);
  return socket;
}

function established(socket: Socket, ready: string, server: ServerAddress, options: ConnectOptions): Promise<void> {
  return new Promise((resolve, reject) => {
    const cancel = (): void => void socket.destroy(new NetError('cancelled', 'cancelled'));
    if (options.signal?.aborted) cancel();
    options.signal?.addEventListener('abort', cancel, { once: true });
    socket.once('close', () => {
      options.signal?.removeEventListener('abort', cancel);
      // It may end before it is ready, and without an error: nobody else would say so.
      reject(new NetError('unreachable', `${where(server)} closed the connection before it stood`));
    });
    socket.setTimeout(options.timeout, () => socket.destroy(new NetError('timeout', `${where(server)} fell silent`)));
    socket.once(ready, () => resolve());
    socket.once('error', (error) => reject(unreachable(error, server)));
  });
}

function unreachable(error: Error, server: ServerAddress): NetError {
  if (error instanceof NetError) return error;
  const { code } = error as NodeJS.ErrnoException;
  const kind = code !== undefined && (code.startsWith('CERT_') || code.startsWith('ERR_TLS') || CERTIFICATE_CODES.has(code)) ? 'certificate' : 'unreachable';
  return new NetError(kind, `${where(server)} ${kind === 'certificate' ? 'has no certificate for its name' : 'cannot be reached'}: ${error.message}`);
}

const CERTIFICATE_CODES = new Set([
  'DEPTH_ZERO_SELF_SIGNED_CERT',
  'SELF_SIGNED_CERT_IN_CHAIN',
  'UNABLE_TO_VERIFY_LEAF_SIGNATURE',
  'UNABLE_TO_GET_ISSUER_CERT_LOCALLY',
  'HOSTNAME_MISMATCH',
]);

/** The most octets that are read of an answer over HTTPS: no message has more. */
const BODY_LIMIT = 65_535;

/** One message over HTTPS by POST (RFC 8484 §4.1), HTTP/2 where the server speaks it. Throws a NetError. */
export async function askHttps(routes: RouteTable, server: ServerAddress, wire: Uint8Array, options: ConnectOptions): Promise<Uint8Array> {
  const socket = await openTls(routes, server, DEFAULT_PORTS.https, options, ['h2', 'http/1.1']);
  const authority = server.tlsName ?? (server.address.includes(':') ? `[${server.address}]` : server.address);
  const path = server.path ?? '/dns-query';
  try {
    const { status, type, body } = await (socket.alpnProtocol === 'h2' ? overHttp2 : overHttp1)(socket, authority, path, wire);
    if (status !== 200) throw new NetError('refused', `${where(server)} answered over HTTPS with status ${status}`);
    if (type?.split(';')[0]?.trim().toLowerCase() !== 'application/dns-message')
      throw new NetError('malformed', `${where(server)} answered over HTTPS with ${type ?? 'no type'}, not a DNS message`);
    return body;
  } catch (error) {
    if (error instanceof NetError) throw error;
    throw new NetError('cut', `${where(server)} broke off over HTTPS: ${(error as Error).message}`);
  } finally {
    socket.destroy();
  }
}

interface HttpAnswer {
  readonly status: number;
  readonly type: string | undefined;
  readonly body: Uint8Array;
}

function overHttp2(socket: TLSSocket, authority: string, path: string, wire: Uint8Array): Promise<HttpAnswer> {
  return new Promise((resolve, reject) => {
    const session = connectHttp2(`https://${authority}`, { createConnection: () => socket });
    session.once('error', reject);
    socket.once('error', reject);
    const stream = session.request({
      ':method': 'POST',
      ':path': path,
      accept: 'application/dns-message',
      'content-type': 'application/dns-message',
      'content-length': String(wire.length),
    });
    stream.once('error', reject);
    stream.once('close', () => reject(new Error('it closed the stream without an answer')));
    stream.once('response', (headers) => {
      collect(stream, reject, (body) => {
        session.destroy();
        resolve({ status: Number(headers[':status']), type: headers['content-type'], body });
      });
    });
    stream.end(wire);
  });
}

function overHttp1(socket: TLSSocket, authority: string, path: string, wire: Uint8Array): Promise<HttpAnswer> {
  return new Promise((resolve, reject) => {
    const request = requestHttp1({
      createConnection: () => socket,
      method: 'POST',
      path,
      headers: { host: authority, accept: 'application/dns-message', 'content-type': 'application/dns-message', 'content-length': wire.length },
    });
    request.once('error', reject);
    request.once('response', (response) =>
      collect(response, reject, (body) => resolve({ status: response.statusCode ?? 0, type: response.headers['content-type'], body })),
    );
    request.end(wire);
  });
}

function collect(from: NodeJS.ReadableStream, reject: (error: Error) => void, done: (body: Uint8Array) => void): void {
  const parts: Buffer[] = [];
  let length = 0;
  from.on('data', (part: Buffer) => {
    length += part.length;
    if (length > BODY_LIMIT) reject(new NetError('malformed', 'an answer over HTTPS is longer than a message can be'));
    else parts.push(part);
  });
  from.once('error', reject);
  from.once('close', () => reject(new Error('it closed the stream inside an answer')));
  from.once('end', () => done(new Uint8Array(Buffer.concat(parts))));
}
