import { ByteReader } from './bytes';
import { Name } from './name';
import { longestTtl } from './ttl';

/** The data of an SOA record; durations in seconds. */
export interface Soa {
  readonly primary: Name;
  readonly mailbox: Name;
  readonly serial: number;
  readonly refresh: number;
  readonly retry: number;
  readonly expire: number;
  readonly minimum: number;
}

export function readSoa(data: Uint8Array): Soa {
  const reader = new ByteReader(data);
  return {
    primary: Name.read(reader),
    mailbox: Name.read(reader),
    serial: reader.u32(),
    refresh: reader.u32(),
    retry: reader.u32(),
    expire: reader.u32(),
    minimum: reader.u32(),
  };
}

/** True if serial a is later than b in serial arithmetic (RFC 1982 §3.2). */
export function serialAfter(a: number, b: number): boolean {
  return a !== b && (a - b) >>> 0 < 0x8000_0000;
}

/** N = min(SOA TTL, SOA minimum), seconds (RFC 2308 §5). */
export function negativeTtl(soaTtl: number, soaMinimum: number): number {
  return Math.min(longestTtl(soaTtl), longestTtl(soaMinimum));
}
