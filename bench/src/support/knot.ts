import { ChildProcess, spawn } from 'node:child_process';
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Name, TYPE_CODES } from '@wanderon/core';
import { DnsClient, NetError } from '@wanderon/net';

export interface KnotZone {
  readonly domain: string;
  /** Zone file. */
  readonly file: string;
  /** Anybody on this machine may transfer it. */
  readonly transfer: boolean;
  /** It is signed with NSEC. */
  readonly sign: boolean;
}

/** Where a knot of a bench listens, and whether whoever may transfer a zone may change it too. */
export interface KnotOptions {
  readonly address?: string;
  readonly update?: boolean;
}

/** knot with zones, transferred with `key` only where there is one, on a port of a loopback address that needs no rights; it is ready when this returns. */
export async function startKnot(
  folder: string,
  port: number,
  zones: readonly KnotZone[],
  key?: { name: string; secret: string },
  { address = '127.0.0.1', update = false }: KnotOptions = {},
): Promise<ChildProcess> {
  const storage = join(folder, `knot-${port}`);
  mkdirSync(storage);
  const config = join(storage, 'knot.conf');
  const entries = zones.map(
    ({ domain, file, transfer, sign }) =>
      `  - domain: ${domain}.\n    file: ${file}\n${transfer ? '    acl: anybody\n' : ''}${sign ? '    dnssec-signing: on\n    dnssec-policy: plain\n' : ''}`,
  );
  writeFileSync(
    config,
    `server:
    rundir: ${storage}
    listen: ${address}@${port}
${
  key
    ? `key:
  - id: ${key.name}
    algorithm: hmac-sha256
    secret: ${key.secret}
`
    : ''
}database:
    storage: ${storage}
acl:
  - id: anybody
    ${key ? `key: ${key.name}` : 'address: 127.0.0.0/8'}
    action: ${update ? '[transfer, update]' : 'transfer'}
policy:
  - id: plain
    algorithm: ecdsap256sha256
template:
  - id: default
    zonefile-sync: -1
    zonefile-load: difference
    journal-content: changes
zone:
${entries.join('')}`,
  );
  const child = spawn('knotd', ['-c', config], { stdio: 'ignore' });
  const client = new DnsClient();
  for (const { domain, sign } of zones)
    for (let left = 600; ; left--) {
      try {
        const answer = await client.ask({ address, port }, Name.parse(`${domain}.`), sign ? TYPE_CODES.DNSKEY : TYPE_CODES.SOA, {
          timeout: 200,
          tries: 1,
        });
        if (answer.answers.length > 0) break;
      } catch (error) {
        if (!(error instanceof NetError)) throw error;
      }
      if (left === 0 || child.exitCode !== null) throw new Error(`knot does not serve ${domain}`);
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
  return child;
}
