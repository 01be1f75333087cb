import { TOP_BIT_TTL } from '../dns/ttl';
import { TYPE_CODES } from '../dns/typeNames';
import { SetKey, keyOf, setKey } from '../move/plan';
import { ParentSight, ServerSeen } from '../move/seen';
import { LedSpans, Lead, ledSpans } from './led';
import { NAMES_MOVED, sharedNames, untoldNames } from './newSet';
import { Run } from './runs';
import { Answered, Served, runsUntilAside } from './served';
import { TimesInput } from './times';

const lower = (name: string): string => name.toLowerCase();

/** Where servers of the parent and of the zone lead caches, by what was seen of them. */
export class Leads {
  readonly apexNs: SetKey;
  private readonly shared: ReadonlyMap<string, readonly string[]>;
  /** Names that stay and of which no server tells. */
  private readonly untold: readonly string[];
  /** Addresses by name of every server that there is word of. */
  private readonly known = new Map<string, string[]>();
  /** Servers by the set of names that leads there, each set of one sight. */
  private readonly leadsTo = new Map<readonly string[], readonly string[]>();
  private readonly parentRunsOf = new Map<ServerSeen<ParentSight>, Run<ParentSight>[]>();

  constructor(
    private readonly input: TimesInput,
    private readonly served: Served,
  ) {
    const { plan, seen } = input;
    for (const { server, address } of [...plan.oldServers, ...plan.newServers, ...seen.zones]) {
      const name = lower(server);
      this.known.set(name, [...(this.known.get(name) ?? []), address]);
    }
    this.apexNs = keyOf(plan.zone, TYPE_CODES.NS);
    this.shared = sharedNames(plan);
    this.untold = untoldNames(input);
  }

  /** Where names lead of which no server tells: to their old addresses, until a person says otherwise, and for as long as any TTL after it. */
  untoldLeads(): { says: string; runs: Run<Lead>[] }[] {
    const until = this.input.said.aside.get(NAMES_MOVED)?.at ?? Infinity;
    return this.untold.map((name) => {
      const servers = this.input.plan.oldServers.filter((one) => lower(one.server) === name).map((one) => one.address);
      return { says: name, runs: [{ value: { servers, ttl: TOP_BIT_TTL }, from: -Infinity, until }] };
    });
  }

  /** Where caches of any class can have been led to until now, by what was seen. */
  ledNow(): LedSpans {
    return this.spansNow().extending;
  }

  /** The same by class of caches. */
  spansNow(): { ordinary: LedSpans; extending: LedSpans } {
    const { seen, assumed } = this.input;
    const parent = seen.parent.map((server) => ({ says: server.server, runs: this.parentRuns(server).flatMap((run) => this.parentLeads(run)) }));
    const zone = new Map(
      seen.zones.map((server): [string, Run<Lead>[]] => [
        server.address,
        this.zoneLeads(this.served.runs(server, this.apexNs), (key) => this.served.runs(server, key)),
      ]),
    );
    return ledSpans({ parent: [...parent, ...this.untoldLeads()], zone, floor: assumed.floor });
  }

  parentRuns(server: ServerSeen<ParentSight>): Run<ParentSight>[] {
    const { said, now, assumed } = this.input;
    const how = { said, now, allowance: assumed.parentAllowance, same: sameParent };
    let runs = this.parentRunsOf.get(server);
    if (!runs) this.parentRunsOf.set(server, (runs = runsUntilAside(server.address, server.sightings, how)));
    return runs;
  }

  parentLeads({ value, from, until }: Run<ParentSight>): Run<Lead>[] {
    const shared = value.glue.filter((one) => this.shared.has(lower(one.name)));
    return [
      ...(value.onlyAddresses ? [] : [{ value: { servers: this.serversOf(value.nameservers, value.glue), ttl: value.ttl }, from, until }]),
      ...shared.map((one) => ({ value: { servers: [one.address], ttl: one.ttl }, from, until })),
    ];
  }

  /** What a server of the zone leads to: the names of its NS set, and where names stay, the addresses that it gives for them. */
  zoneLeads(ns: readonly Run<Answered>[], addresses: (key: SetKey) => readonly Run<Answered>[]): Run<Lead>[] {
    const lead = (runs: readonly Run<Answered>[], servers: (data: readonly string[]) => readonly string[]): Run<Lead>[] =>
      runs.flatMap(({ value, from, until }) =>
        value && value.data.length > 0 ? [{ value: { servers: servers(value.data), ttl: value.ttl }, from, until }] : [],
      );
    const shared = [...this.shared.keys()].flatMap((name) => ['A', 'AAAA'].map((type) => setKey(name, type)));
    return [...lead(ns, (names) => this.serversOf(names, [])), ...shared.flatMap((key) => lead(addresses(key), (data) => data))];
  }

  private serversOf(names: readonly string[], glue: ParentSight['glue']): readonly string[] {
    let servers = this.leadsTo.get(names);
    if (!servers) this.leadsTo.set(names, (servers = this.findServers(names, glue)));
    return servers;
  }

  private findServers(names: readonly string[], glue: ParentSight['glue']): string[] {
    const servers = new Set<string>();
    for (const name of names.map(lower)) {
      if (this.shared.has(name)) continue;
      const given = glue.filter((one) => lower(one.name) === name).map((one) => one.address);
      const addresses = given.length > 0 ? given : (this.known.get(name) ?? [`name:${name}`]);
      for (const address of addresses) servers.add(address);
    }
    return [...servers];
  }
}

function sameParent(a: ParentSight, b: ParentSight): boolean {
  if (a === b) return true;
  if (a.ttl !== b.ttl || a.dsTtl !== b.dsTtl) return false;
  const glue = (sight: ParentSight): string => sight.glue.map((one) => `${one.name} ${one.address} ${one.ttl}`).join();
  const texts = (sight: ParentSight): string => `${sight.nameservers.join()} ${sight.ds.join()}`;
  return texts(a) === texts(b) && glue(a) === glue(b);
}
