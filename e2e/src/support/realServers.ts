import { ChildProcess, execFile, spawn, spawnSync } from 'node:child_process';
import { chmodSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { until } from '../../../command/src/api';

const run = promisify(execFile);

/** An address of the worker that runs the test: 127.53.0.0/16 is used by nobody else. */
export const loopback = (number: number): string => `127.53.${process.env['JEST_WORKER_ID'] ?? '0'}.${number}`;

/** Debian's own servers on loopback addresses of their own. A resolver finds them by referral, which names addresses and no ports, so they stand on port 53. */
export const PARENT = loopback(1);
export const OLD = loopback(2);
export const NEW = loopback(3);
export const RESOLVER = loopback(4);
export interface ServerKey {
  readonly name: string;
  readonly algorithm: string;
  readonly secret: string;
}

export const KEY = { name: 'move.key.', algorithm: 'hmac-sha256', secret: Buffer.alloc(32, 5).toString('base64') } as const;

export class RealServers {
  readonly folder = mkdtempSync(join(tmpdir(), 'wanderon-real-'));
  private readonly children = new Map<string, ChildProcess>();
  private readonly added: string[] = [];

  constructor() {
    chmodSync(this.folder, 0o777);
  }

  file(name: string, text: string): string {
    const path = join(this.folder, name);
    writeFileSync(path, text, { mode: 0o666 });
    return path;
  }

  /** bind9 with the zones given as text; `byHand`: it takes no updates and gives no transfer; `more`: further settings of a zone. */
  async bind(
    address: string,
    zones: Record<string, string>,
    options: { keyed: boolean; encrypted?: boolean; signed?: boolean; byHand?: boolean; more?: (zone: string) => string },
  ): Promise<void> {
    const name = this.bindFolder(address);
    // bind makes a signed copy beside the file, and cannot take updates of the same zone then.
    const signed = options.signed ? 'dnssec-policy default; inline-signing yes;' : 'ixfr-from-differences yes;';
    const allow = options.keyed ? `key "${KEY.name}";` : '127.0.0.0/8;';
    const entries = Object.entries(zones).map(([zone, text]) => {
      const file = this.file(`${name}/${zone === '.' ? 'root' : zone}zone`, text);
      // One that takes updates does not read its file again.
      const opens = options.byHand ? 'allow-transfer { none; };' : `allow-transfer { ${allow} }; allow-update { ${allow} };`;
      return `zone "${zone}" { type primary; file "${file}"; ${signed} ${opens} ${options.more?.(zone) ?? ''} };`;
    });
    const encrypted = options.encrypted
      ? `listen-on port 853 tls ephemeral { ${address}; }; listen-on port 443 tls ephemeral http default { ${address}; };`
      : '';
    await this.startBind(address, name, encrypted, entries);
  }

  private bindFolder(address: string): string {
    // bind listens on addresses that an interface has, and all of 127.0.0.0/8 is not that.
    spawnSync('ip', ['address', 'add', `${address}/32`, 'dev', 'lo']);
    this.added.push(address);
    const name = `bind-${address}`;
    mkdirSync(join(this.folder, name), { mode: 0o777 });
    return name;
  }

  private async startBind(address: string, name: string, listening: string, entries: readonly string[]): Promise<void> {
    const config = this.file(
      `${name}/named.conf`,
      `key "${KEY.name}" { algorithm ${KEY.algorithm}; secret "${KEY.secret}"; };
options { directory "${join(this.folder, name)}"; listen-on port 53 { ${address}; }; ${listening} listen-on-v6 { none; }; pid-file none; check-names primary ignore; recursion no; dnssec-validation no; session-keyfile none; };
controls { };
${entries.join('\n')}\n`,
    );
    await this.start('/usr/sbin/named', ['-f', '-g', '-c', config], address);
  }

  /** bind9 that shows whoever comes with the key another zone than everybody else, as where an inner view is kept. */
  async bindViews(address: string, zone: string, inner: string, outer: string): Promise<void> {
    const folder = this.bindFolder(address);
    const view = (name: string, text: string): string =>
      `view "${name}" { match-clients { ${name === 'inner' ? `key "${KEY.name}"` : 'any'}; }; zone "${zone}" { type primary; file "${this.file(`${folder}/${name}`, text)}"; allow-transfer { key "${KEY.name}"; }; }; };`;
    await this.startBind(address, folder, '', [view('inner', inner), view('outer', outer)]);
  }

  /** nsd with the zones given as text, transfer by key; it takes no updates. */
  async nsd(address: string, zones: Record<string, string>): Promise<void> {
    const folder = join(this.folder, `nsd-${address}`);
    mkdirSync(folder, { mode: 0o777 });
    const entries = Object.entries(zones).map(
      ([zone, text]) => `zone:\n  name: "${zone}"\n  zonefile: "${this.file(`nsd-${address}/${zone}zone`, text)}"\n  provide-xfr: 127.0.0.0/8 ${KEY.name}\n`,
    );
    const config = this.file(`nsd-${address}/nsd.conf`, `${nsdServer(folder, address, KEY)}${entries.join('')}`);
    await this.start('/usr/sbin/nsd', ['-d', '-c', config], address);
  }

  /** A server of each kind that fetches a zone, with the key, from a port of ours on loopback. */
  async secondary(kind: 'bind' | 'knot' | 'nsd', address: string, zone: string, port: number, key: ServerKey): Promise<void> {
    spawnSync('ip', ['address', 'add', `${address}/32`, 'dev', 'lo']);
    this.added.push(address);
    const folder = join(this.folder, `secondary-${kind}`);
    mkdirSync(folder, { mode: 0o777 });
    chmodSync(folder, 0o777);
    const file = (name: string, text: string): string => this.file(`secondary-${kind}/${name}`, text);
    if (kind === 'bind') {
      const config = `key "${key.name}" { algorithm ${key.algorithm}; secret "${key.secret}"; };
options { directory "${folder}"; listen-on port 53 { ${address}; }; listen-on-v6 { none; }; pid-file none; recursion no; dnssec-validation no; session-keyfile none; };
controls { };
zone "${zone}" { type secondary; file "${zone}"; masterfile-format text; primaries { 127.0.0.1 port ${port} key "${key.name}"; }; allow-transfer { 127.0.0.0/8; }; };\n`;
      return this.start('/usr/sbin/named', ['-f', '-g', '-c', file('named.conf', config)], address);
    }
    if (kind === 'knot') {
      const config = `${knotServer(folder, address, key)}remote:
  - id: ours
    address: 127.0.0.1@${port}
    key: ${key.name}
acl:
  - id: anybody
    address: 127.0.0.0/8
    action: transfer
database:
    storage: ${folder}
zone:
  - domain: ${zone}
    storage: ${folder}
    master: ours
    acl: anybody\n`;
      return this.start('/usr/sbin/knotd', ['-c', file('knot.conf', config)], address);
    }
    const config = `${nsdServer(folder, address, key)}zone:\n  name: "${zone}"\n  zonefile: "${join(folder, 'zone')}"\n  request-xfr: AXFR 127.0.0.1@${port} ${key.name}\n  provide-xfr: 127.0.0.0/8 NOKEY\n`;
    return this.start('/usr/sbin/nsd', ['-d', '-c', file('nsd.conf', config)], address);
  }

  /** knot with the zones given as text, transfer and update by key; `byHand`: neither of them. */
  async knot(address: string, zones: Record<string, string>, signed?: 'nsec' | 'nsec3', byHand = false): Promise<void> {
    const name = `knot-${address}`;
    const storage = join(this.folder, name);
    mkdirSync(storage, { mode: 0o777 });
    const signing = signed ? '    dnssec-signing: on\n    dnssec-policy: ours\n' : '';
    const entries = Object.entries(zones).map(
      ([zone, text]) => `  - domain: ${zone}\n    file: ${this.file(`${name}/${zone}zone`, text)}\n${byHand ? '' : '    acl: ours\n'}${signing}`,
    );
    const config = this.file(
      `${name}/knot.conf`,
      `${knotServer(storage, address, KEY)}acl:
  - id: ours
    key: ${KEY.name}
    action: [transfer, update]
database:
    storage: ${storage}
policy:
  - id: ours
    algorithm: ecdsap256sha256
    nsec3: ${signed === 'nsec3' ? 'on' : 'off'}
template:
  - id: default
    storage: ${storage}
    zonefile-sync: -1
    zonefile-load: difference
    journal-content: changes
zone:
${entries.join('')}`,
    );
    await this.start('/usr/sbin/knotd', ['-c', config], address);
  }

  /** unbound, which checks signatures from the `anchors` on, where there are any. */
  async unbound(address: string, rootAddress: string, anchors: readonly string[] = []): Promise<void> {
    const hints = this.file(`unbound-hints-${address}`, `. 3600 IN NS root.servers.test.\nroot.servers.test. 3600 IN A ${rootAddress}\n`);
    const config = this.file(
      `unbound-${address}.conf`,
      `server:
  interface: ${address}
  port: 53
  do-ip6: no
  do-daemonize: no
  username: ""
  chroot: ""
  directory: "${this.folder}"
  pidfile: ""
  use-syslog: no
  root-hints: "${hints}"
  do-not-query-localhost: no
  access-control: 127.0.0.0/8 allow
  # It denies the names of documentation's addresses by itself (RFC 6303 §4.2).
  local-zone: "2.0.192.in-addr.arpa." nodefault
  module-config: "${anchors.length > 0 ? 'validator iterator' : 'iterator'}"
${anchors.map((anchor) => `  trust-anchor: "${anchor}"\n`).join('')}  trust-anchor-signaling: no
remote-control:
  control-enable: no
`,
    );
    await this.start('/usr/sbin/unbound', ['-d', '-c', config], address);
  }

  /** The server at an address reads its files again. */
  reload(address: string): void {
    this.children.get(address)!.kill('SIGHUP');
  }

  close(): void {
    for (const child of this.children.values()) child.kill('SIGKILL');
    for (const address of this.added) spawnSync('ip', ['address', 'del', `${address}/32`, 'dev', 'lo']);
    rmSync(this.folder, { recursive: true, force: true });
  }

  private async start(command: string, args: readonly string[], address: string): Promise<void> {
    const said: string[] = [];
    const child = spawn(command, args, { stdio: ['ignore', 'pipe', 'pipe'] });
    this.children.set(address, child);
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk: Buffer) => said.push(String(chunk)));
    await until(`${command} answers at ${address}`, async () => {
      if (child.exitCode !== null) throw new Error(`${command} ended:\n${said.join('').slice(-2000)}`);
      const { stdout } = await dig(address, ['.', 'SOA']);
      return /status: /.test(stdout);
    });
  }
}

function knotServer(folder: string, address: string, key: ServerKey): string {
  return `server:
    rundir: ${folder}
    listen: ${address}@53
key:
  - id: ${key.name}
    algorithm: ${key.algorithm}
    secret: ${key.secret}
`;
}

function nsdServer(folder: string, address: string, key: ServerKey): string {
  return `server:
  ip-address: ${address}
  username: ""
  chroot: ""
  zonesdir: "${folder}"
  pidfile: ""
  database: ""
  xfrdfile: "${join(folder, 'xfrd')}"
  xfrdir: "${folder}"
  zonelistfile: "${join(folder, 'list')}"
  server-count: 1
  rrl-ratelimit: 0
remote-control:
  control-enable: no
key:
  name: "${key.name}"
  algorithm: ${key.algorithm}
  secret: "${key.secret}"
`;
}

/** Debian's own client, as a witness that is not ours. */
export async function dig(address: string, args: readonly string[]): Promise<{ stdout: string }> {
  try {
    return await run('dig', [`@${address}`, '+time=5', '+tries=1', ...args]);
  } catch (error) {
    return { stdout: String((error as { stdout?: string }).stdout ?? '') };
  }
}

/** The lines of a transfer made by dig, the TTL taken out and the data as dig prints it. */
export async function transferredLines(address: string, zone: string): Promise<string[]> {
  const { stdout } = await dig(address, ['AXFR', zone, '-y', `${KEY.algorithm}:${KEY.name}:${KEY.secret}`, '+noall', '+answer', '+nosplit']);
  return stdout
    .split('\n')
    .filter((line) => line.trim() !== '' && !line.startsWith(';'))
    .map((line) => line.replace(/\s+/g, ' '));
}

export async function nsupdate(folder: string, address: string, commands: readonly string[], port = 53, key?: ServerKey): Promise<void> {
  const file = join(folder, `update-${Math.random().toString(36).slice(2)}`);
  writeFileSync(file, [`server ${address} ${port}`, ...commands, 'send', ''].join('\n'));
  await run('nsupdate', [...(key ? ['-y', `${key.algorithm}:${key.name}:${key.secret}`] : []), file]);
}
