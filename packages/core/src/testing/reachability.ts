/**
 * What caches can hold, by exact reachability: an admissible cache uses an entry only until it was fetched plus its TTL, takes
 * leads from the parent or from servers that it is led to, and, in the extending class, renews leads there. Time goes in slots
 * of one; what a server says during a slot can be fetched until just before its end. Shares nothing with what it is held against.
 */

/** What a server of the zone says during one slot. `ns`: addresses that its NS set leads to. */
export interface ZoneSlot {
  readonly ns: readonly string[];
  readonly nsTtl: number;
  readonly value: string;
  readonly ttl: number;
}

export interface ParentSlot {
  readonly ns: readonly string[];
  readonly nsTtl: number;
  readonly dsTtl: number | undefined;
}

export interface TrueWorld {
  readonly parents: readonly (readonly ParentSlot[])[];
  readonly zones: ReadonlyMap<string, readonly ZoneSlot[]>;
}

/** Every entry that some admissible cache may have fetched: until when at the latest, as a supremum, by what it says. */
export class Reach {
  /** Until when caches may be led to each server: by the parent's word, and by anybody's. */
  private readonly byParent = new Map<string, number>();
  readonly leads = new Map<string, number>();
  readonly values = new Map<string, number>();
  readonly ownNs = new Map<string, number>();
  private slot = 0;

  constructor(
    private readonly world: TrueWorld,
    private readonly cls: 'ordinary' | 'extending',
  ) {}

  /** Takes in every slot before `now`. */
  until(now: number): this {
    for (; this.slot < now; this.slot++) this.step(this.slot);
    return this;
  }

  private step(slot: number): void {
    for (const parent of this.world.parents)
      for (const server of parent[slot]!.ns) {
        raise(this.byParent, server, slot + 1 + parent[slot]!.nsTtl);
        raise(this.leads, server, slot + 1 + parent[slot]!.nsTtl);
      }
    const source = this.cls === 'ordinary' ? this.byParent : this.leads;
    // Within a slot a cache can go from server to server, so often as there are servers.
    for (let round = 0; round <= this.world.zones.size; round++)
      for (const [server, slots] of this.world.zones) {
        const led = source.get(server) ?? 0;
        if (led > slot) for (const next of slots[slot]!.ns) raise(this.leads, next, Math.min(slot + 1, led) + slots[slot]!.nsTtl);
      }
    for (const [server, slots] of this.world.zones) {
      const led = this.leads.get(server) ?? 0;
      if (led <= slot) continue;
      const said = slots[slot]!;
      raise(this.values, said.value, Math.min(slot + 1, led) + said.ttl);
      raise(this.ownNs, said.ns.join(), Math.min(slot + 1, led) + said.nsTtl);
    }
  }
}

function raise(map: Map<string, number>, what: string, until: number): void {
  map.set(what, Math.max(map.get(what) ?? 0, until));
}
