import { Name, RRset, SetChange, TsigKey, groupRecords, typeMnemonic, printRdata } from '@wanderon/core';
import { DnsClient, Route, RouteTable, sendUpdates, transferZone } from '@wanderon/net';

interface LabHost {
  readonly id: string;
  readonly nameservers: readonly { readonly name: string; readonly address: string }[];
  readonly key?: { readonly name: string; readonly secret: string };
}

/** The lab as seen from outside: its zones at DNS hosts that give transfers and take updates, as somebody with their key sees and edits them; its resolvers. */
export class LabZones {
  private constructor(
    readonly client: DnsClient,
    private readonly hosts: readonly LabHost[],
    readonly lookouts: readonly { readonly name: string; readonly address: string }[],
  ) {}

  /** `address` of the lab. */
  static async of(address: string): Promise<LabZones> {
    const get = async <T>(path: string): Promise<T> => (await (await fetch(`${address}${path}`)).json()) as T;
    const { hosts, lookouts } = await get<Pick<LabZones, 'lookouts'> & { hosts: LabHost[] }>('/scenario');
    return new LabZones(new DnsClient(new RouteTable(await get<Route[]>('/routes'))), hosts, lookouts);
  }

  addresses(host: string): string[] {
    return this.host(host).nameservers.map((one) => one.address);
  }

  async at(host: string, zone: Name): Promise<RRset[]> {
    return groupRecords((await transferZone(this.client, { address: this.addresses(host)[0]! }, zone, { key: this.key(host) })).records);
  }

  /** A line a set but for the SOA, sorted: `www.zone.example. 300 A 192.0.2.1`. */
  async lines(host: string, zone: Name): Promise<string[]> {
    return linesOf(await this.at(host, zone));
  }

  /** Somebody else edits a zone. */
  async edit(host: string, zone: Name, changes: readonly SetChange[]): Promise<void> {
    await sendUpdates(this.client, { address: this.addresses(host)[0]! }, zone, changes, this.key(host));
  }

  private host(id: string): LabHost {
    return this.hosts.find((one) => one.id === id)!;
  }

  private key(host: string): TsigKey {
    const { name, secret } = this.host(host).key!;
    return { name: Name.parse(name), algorithm: 'hmac-sha256', secret: new Uint8Array(Buffer.from(secret, 'base64')) };
  }
}

export function linesOf(sets: readonly RRset[]): string[] {
  const data = (set: RRset): string =>
    set.data
      .map((one) => printRdata(set.type, one))
      .sort()
      .join(' ');
  return sets
    .map((set) => `${set.owner.toString()} ${set.ttl} ${typeMnemonic(set.type)} ${data(set)}`)
    .filter((line) => !/^\S+ \d+ SOA /.test(line))
    .sort();
}
