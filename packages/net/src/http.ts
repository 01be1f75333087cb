import { IncomingMessage, request as requestHttp } from 'node:http';
import { Socket } from 'node:net';
import { SecureContext, TLSSocket, connect as connectTls, createSecureContext } from 'node:tls';
import { Prefix, inPrefix, isIpv4, isIpv6, isPublicAddress, storable } from '@wanderon/core';
import { openTcp } from './connect';
import { deadline } from './deadline';
import { NetError } from './netError';
import { RouteTable } from './routes';

/** How pages are fetched: where names lead, what may be reached, and how much is read. */
export interface HttpWorld {
  readonly routes: RouteTable;
  /** Every address of a host name. */
  readonly resolve: (host: string) => Promise<readonly string[]>;
  /** Addresses that are not public and may be reached all the same. Where a route leads may always be reached. */
  readonly allowed?: readonly Prefix[];
  /** Certificates to trust instead of the system's, as PEM. */
  readonly ca?: string | undefined;
}

export interface HttpOptions {
  /** Milliseconds of silence. */
  readonly timeout?: number;
  /** Octets of the body that are read. */
  readonly limit?: number;
  readonly accept?: string;
  readonly signal?: AbortSignal | undefined;
}

export interface Certificate {
  /** Host names it is for. */
  readonly names: readonly string[];
  readonly issuer: string;
  /** Seconds since 1970. */
  readonly from: number;
  readonly until: number;
  /** SHA-256 of it, in hex. */
  readonly fingerprint: string;
  /** Why a browser would refuse it; undefined where it would not. */
  readonly problem: string | undefined;
}

export interface HttpAnswer {
  readonly address: string;
  readonly status: number;
  readonly headers: Readonly<Record<string, string>>;
  readonly body: Uint8Array;
  /** The body was longer than what was read. */
  readonly cut: boolean;
  readonly certificate: Certificate | undefined;
}

const TIMEOUT = 8000;
const LIMIT = 512 * 1024;
/** Milliseconds that one answer may take in all, whatever trickles in. */
const LONGEST = 30_000;

/** One request, no redirect followed, any certificate taken and judged. Throws a NetError. */
export async function fetchOnce(world: HttpWorld, url: URL, options: HttpOptions = {}): Promise<HttpAnswer> {
  if (url.protocol !== 'http:' && url.protocol !== 'https:') throw new NetError('refused', `${url.protocol} is not an address of a page`);
  if (url.username !== '' || url.password !== '') throw new NetError('refused', 'an address with a password in it is not followed');
  const secure = url.protocol === 'https:';
  const port = url.port === '' ? (secure ? 443 : 80) : Number(url.port);
  const host = url.hostname.replace(/^\[|\]$/g, '');
  const address = await reachable(world, host, port);
  const whole = deadline(options.signal, LONGEST, `${host} (${address}) took longer than ${LONGEST / 1000} s for one answer`);
  const connecting = { timeout: options.timeout ?? TIMEOUT, signal: whole.signal };
  let plain: Socket | undefined;
  let socket: Socket | undefined;
  try {
    plain = await openTcp(world.routes, { address, port }, port, connecting);
    socket = plain;
    let certificate: Certificate | undefined;
    if (secure) {
      const tls = await secured(plain, host, world.ca);
      certificate = judged(tls);
      socket = tls;
    }
    const response = await answered(socket, url, options);
    const { body, cut } = await bodyOf(response, options.limit ?? LIMIT);
    const headers = Object.fromEntries(
      Object.entries(response.headers).map(([name, value]) => [name, storable((Array.isArray(value) ? value.join(', ') : (value ?? '')).slice(0, 2000))]),
    );
    return { address, status: response.statusCode ?? 0, headers, body, cut, certificate };
  } catch (error) {
    if (options.signal?.aborted) throw new NetError('cancelled', 'cancelled');
    throw whole.told(error instanceof NetError ? error : new NetError('cut', `${host} (${address}) broke off: ${(error as Error).message}`));
  } finally {
    socket?.destroy();
    plain?.destroy();
  }
}

/** Names that are being tried on this machine must not lead into it: the address is chosen and checked here, and connected to as it is. */
async function reachable(world: HttpWorld, host: string, port: number): Promise<string> {
  const addresses = isIpv4(host) || isIpv6(host) ? [host] : await world.resolve(host);
  if (addresses.length === 0) throw new NetError('unreachable', `${host} has no address`);
  const open = addresses.filter((address) => mayReach(world, address, port));
  if (open.length === 0) throw new NetError('refused', `${host} leads to ${addresses[0]!}, which is not an address of the public internet`);
  // IPv4 first: many networks have no IPv6, and what the two serve is compared elsewhere.
  return open.find(isIpv4) ?? open[0]!;
}

function mayReach({ routes, allowed = [] }: HttpWorld, address: string, port: number): boolean {
  return routes.leads(address, port, 'tcp') || isPublicAddress(address) || allowed.some((prefix) => inPrefix(prefix, address));
}

const contexts = new Map<string | undefined, SecureContext>();

/** Reading certificates to trust takes longer than a handshake, and they are the same each time. */
function contextFor(ca: string | undefined): SecureContext {
  let context = contexts.get(ca);
  if (!context) contexts.set(ca, (context = createSecureContext(ca === undefined ? {} : { ca })));
  return context;
}

function secured(socket: Socket, host: string, ca: string | undefined): Promise<TLSSocket> {
  return new Promise((resolve, reject) => {
    const tls = connectTls({
      socket,
      ALPNProtocols: ['http/1.1'],
      rejectUnauthorized: false,
      host,
      ...(isIpv4(host) || isIpv6(host) ? {} : { servername: host }),
      secureContext: contextFor(ca),
    });
    tls.once('secureConnect', () => resolve(tls));
    tls.once('error', (error) => reject(new NetError('unreachable', `${host} speaks no TLS: ${error.message}`)));
    tls.once('close', () => reject(new NetError('cut', `${host} closed the connection before TLS was set up`)));
  });
}

function judged(tls: TLSSocket): Certificate | undefined {
  const peer = tls.getPeerX509Certificate();
  if (!peer) return undefined;
  const names = (peer.subjectAltName ?? '')
    .split(', ')
    .filter((name) => name.startsWith('DNS:'))
    .map((name) => name.slice(4));
  // A line for each part of the name.
  const issuer = (part: string): string | undefined => new RegExp(`^${part}=(.+)$`, 'm').exec(peer.issuer)?.[1];
  return {
    names: names.slice(0, 100).map(storable),
    issuer: storable((issuer('O') ?? issuer('CN') ?? 'unknown').slice(0, 200)),
    from: Date.parse(peer.validFrom) / 1000,
    until: Date.parse(peer.validTo) / 1000,
    fingerprint: peer.fingerprint256.replaceAll(':', '').toLowerCase(),
    problem: tls.authorized ? undefined : certificateWords(tls.authorizationError),
  };
}

/** OpenSSL's codes in words. */
function certificateWords(error: Error | string | undefined): string {
  const code = typeof error === 'string' ? error : ((error as NodeJS.ErrnoException | undefined)?.code ?? error?.message ?? 'unknown');
  switch (code) {
    case 'CERT_HAS_EXPIRED':
      return 'it has expired';
    case 'CERT_NOT_YET_VALID':
      return 'it is not valid yet';
    case 'ERR_TLS_CERT_ALTNAME_INVALID':
      return 'it is for other names';
    case 'DEPTH_ZERO_SELF_SIGNED_CERT':
      return 'it is signed by itself';
    case 'SELF_SIGNED_CERT_IN_CHAIN':
    case 'UNABLE_TO_GET_ISSUER_CERT_LOCALLY':
    case 'UNABLE_TO_VERIFY_LEAF_SIGNATURE':
      return 'its issuer is not trusted, or the chain to it is not sent';
    default:
      return `it is not accepted (${code})`;
  }
}

function answered(socket: Socket, url: URL, options: HttpOptions): Promise<IncomingMessage> {
  return new Promise((resolve, reject) => {
    const request = requestHttp({
      createConnection: () => socket,
      method: 'GET',
      path: `${url.pathname}${url.search}`,
      headers: { host: url.host, accept: options.accept ?? '*/*', 'user-agent': 'Wanderon', connection: 'close', 'accept-encoding': 'identity' },
      maxHeaderSize: 32 * 1024,
    });
    request.once('error', reject);
    request.once('response', resolve);
    request.end();
  });
}

async function bodyOf(response: IncomingMessage, limit: number): Promise<{ body: Uint8Array; cut: boolean }> {
  const parts: Buffer[] = [];
  let length = 0;
  for await (const part of response as AsyncIterable<Buffer>) {
    parts.push(part.subarray(0, limit - length));
    length += part.length;
    if (length > limit) return { body: new Uint8Array(Buffer.concat(parts)), cut: true };
  }
  return { body: new Uint8Array(Buffer.concat(parts)), cut: false };
}
