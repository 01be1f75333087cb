import { Inject, Injectable } from '@nestjs/common';
import {
  Name,
  RCODE,
  RRset,
  SetChange,
  TYPE_CODES,
  TsigKey,
  changesBetween,
  groupRecords,
  keyOf,
  printRdata,
  refusedWords,
  typeMnemonic,
} from '@wanderon/core';
import { Host } from '@wanderon/contract';
import { NetError, RefusedChanges, sendUpdates, transferZone } from '@wanderon/net';
import { CLOCK, Clock } from '../../clock/clock';
import { DATABASE, Database } from '../../db/database';
import { EventStore } from '../../events/event.store';
import { HostStore } from '../../hosts/host.store';
import { LiveService } from '../../live/live.service';
import { tellProgress } from '../../live/tellProgress';
import { Network, TRANSFER_BOUNDS } from '../../network/network';
import { ActResult, WorkContext, sentence } from '../context';

export interface OutwardTarget {
  readonly host: Host;
  readonly key: TsigKey;
  readonly server: { readonly server: string; readonly address: string };
}

export interface OutwardAct {
  readonly step: string;
  /** What is to be changed, from what the zone holds; what stands there and is in the way instead. */
  readonly plan: (served: readonly RRset[]) => readonly SetChange[] | { readonly stopped: ActResult };
  readonly says: (changes: number) => string;
  readonly decidedBy: string | null;
  /** TTLs that the server does not take are let be: it is said, and what it serves counts. */
  readonly ttlsAside?: boolean;
  /** Where resolvers are led to the zone: looks at every authority of it and records what each answers, right before the update and at its answer. */
  readonly witness?: (() => Promise<void>) | undefined;
}

/** Updates that are guarded by the zone's serial, before one goes without: a zone that changes all the time would never be changed. */
const GUARDED_TRIES = 3;
/** Changes of one act from which pages are told how far it is. */
const WORTH_TELLING = 500;

interface Look {
  readonly changes: readonly SetChange[];
  readonly soa: RRset | undefined;
}

/** The sets of a zone after what this leg last sent there, by owner and type. */
export type Sent = ReadonlyMap<string, readonly string[]>;

/** Every change of a zone at a DNS host goes through here. */
@Injectable()
export class Outward {
  constructor(
    @Inject(DATABASE) private readonly database: Database,
    @Inject(CLOCK) private readonly clock: Clock,
    private readonly events: EventStore,
    private readonly hosts: HostStore,
    private readonly network: Network,
    private readonly live: LiveService,
  ) {}

  /**
   * Where updates for a domain at a host go and with which key; what came of it where it takes none from us: then `byHand` says what to do
   * instead. `names`: the nameservers of the domain there.
   */
  async target(
    { id, names }: { readonly id: string | null; readonly names: readonly string[] },
    byHand: string,
  ): Promise<OutwardTarget | { readonly refusal: ActResult }> {
    const host = id ? await this.hosts.get(id) : undefined;
    const key = host && (await this.hosts.keyOf(host.id));
    if (!host || !key)
      return { refusal: { outcome: 'stopped', problem: `${host?.name ?? 'The DNS host'} takes no updates from us: no key is known. ${byHand}` } };
    const [name] = host.habits.nameservers === 'by domain' && names.length > 0 ? names : host.nameservers;
    const address = host.updateAddress ?? host.addresses[0] ?? (name ? (await this.network.walker().addressesOf(Name.parse(name)))[0] : undefined);
    // Nobody may have answered just now: it is asked again.
    if (!address)
      return { refusal: { outcome: 'trying', problem: `No address of ${name ?? host.name} was found to send updates to. Give one at Hosts, if it has none.` } };
    return { host, key, server: { server: name ?? host.name, address } };
  }

  /** What was sent to a server for a move's domain, as it should stand there. */
  async sent(domainId: string, address: string): Promise<Sent> {
    const rows = await this.database('actions')
      .join('legs', 'legs.id', 'actions.leg_id')
      .join('moves', 'moves.id', 'legs.move_id')
      .where({ 'moves.domain_id': domainId, 'actions.server': address })
      .orderBy('actions.id')
      .select<{ changes: { before: SetShown | null; after: SetShown | null }[] }[]>('changes');
    const sent = new Map<string, readonly string[]>();
    for (const { changes } of rows)
      for (const { before, after } of changes) {
        const set = (after ?? before)!;
        sent.set(`${set.owner.toLowerCase()}/${set.type}`, after ? [...after.data].sort() : []);
      }
    return sent;
  }

  /**
   * Brings a zone to what is wanted by dynamic update, safe to repeat: looks first whether it already took effect, records the
   * action before and after, guards every change by what was seen, and looks again afterwards. A process that dies in between
   * leaves an action without an end; the next one finds the zone as it should be and sends nothing.
   */
  async bring({ move, loaded, zone }: WorkContext, { server, key }: OutwardTarget, act: OutwardAct): Promise<ActResult & { rcode?: number | undefined }> {
    const look = async (): Promise<Look | { readonly stopped: ActResult }> => {
      const { records } = await transferZone(this.network.client, server, zone, { ...TRANSFER_BOUNDS, key });
      const sets = groupRecords(records);
      const planned = act.plan(sets);
      return 'stopped' in planned ? planned : { changes: planned, soa: sets.find((set) => set.type === TYPE_CODES.SOA && set.owner.equals(zone)) };
    };
    const leg = loaded.row.id;
    const pages = tellProgress(this.live, { move: move.id, step: act.step });
    try {
      let seen = await look();
      if ('stopped' in seen) return seen.stopped;
      const begun = await this.database('actions').where({ leg_id: leg, step: act.step, finished_at: null }).first<{ id: string } | undefined>('id');
      if (seen.changes.length === 0) {
        if (begun) await this.finish(begun.id, 'found done');
        return { outcome: 'done', problem: null };
      }
      const action = begun?.id ?? (await this.begin(move.id, move.domain, leg, server, seen.changes, act));
      for (let attempt = 1; ; attempt++) {
        await act.witness?.();
        try {
          await sendUpdates(this.network.client, server, zone, seen.changes, key, {
            guard: act.witness && attempt <= GUARDED_TRIES ? seen.soa : undefined,
            onTaken: this.tellSent(pages, server.server, seen.changes.length),
          });
          break;
        } catch (error) {
          if (!(error instanceof NetError) || !EDITED.has(error.rcode ?? -1) || attempt > GUARDED_TRIES) throw error;
        }
        // Somebody edits the zone at this moment: what is there now is looked at again, and counts.
        seen = await look();
        if ('stopped' in seen) return seen.stopped;
        if (seen.changes.length === 0) break;
      }
      await act.witness?.();
      const after = await look();
      if ('stopped' in after) return after.stopped;
      const left = after.changes;
      const names = (all: readonly SetChange[]): string =>
        all
          .map((change) => `${change.owner.toString()} ${typeMnemonic(change.type)}`)
          .slice(0, 5)
          .join(', ');
      const onlyTtls = left.every(
        (change) => change.before && change.after && changesBetween([{ ...change.before, ttl: 0 }], [{ ...change.after, ttl: 0 }]).length === 0,
      );
      if (left.length > 0 && !(act.ttlsAside && onlyTtls))
        return { outcome: 'stopped', problem: `${server.server} took the update, but still differs in ${names(left)}.` };
      await this.finish(action, 'done');
      return {
        outcome: 'done',
        problem: left.length > 0 ? `${server.server} takes a change of TTL alone for no change: ${names(left)} stays as it is, and counts so.` : null,
        kept: left.map((change) => keyOf(change.owner, change.type)),
      };
    } catch (error) {
      if (!(error instanceof NetError)) throw error;
      if (error instanceof RefusedChanges) {
        const why = error.changes.slice(0, 1).map(refusedWords);
        return { outcome: 'stopped', problem: `${sentence(error.message)} ${why.join(' ')} Everything else was taken.`, rcode: error.rcode };
      }
      const again = ['timeout', 'cut', 'unreachable', 'cancelled'].includes(error.kind);
      return { outcome: again ? 'trying' : 'stopped', problem: sentence(error.message), rcode: error.rcode };
    } finally {
      pages.over();
    }
  }

  /** Small changes are over before anybody reads of them. */
  private tellSent(pages: ReturnType<typeof tellProgress>, server: string, changes: number): ((taken: number) => void) | undefined {
    if (changes < WORTH_TELLING) return undefined;
    return (taken) => pages.tell({ doing: `Sending record sets to ${server.replace(/\.$/, '')}`, asked: taken, left: changes - taken });
  }

  private async begin(
    move: string,
    domain: string,
    leg: string,
    server: OutwardTarget['server'],
    changes: readonly SetChange[],
    act: OutwardAct,
  ): Promise<string> {
    const changed = changes.map(describe);
    return this.database.transaction(async (transaction) => {
      await this.events.add(
        {
          kind: act.step,
          text: `Sending to ${server.server} (${server.address}): ${act.says(changes.length)}`,
          domain,
          move,
          before: changed.map((one) => one.before),
          after: changed.map((one) => one.after),
          person: act.decidedBy ?? undefined,
        },
        transaction,
      );
      const [made] = await transaction('actions')
        .insert({ leg_id: leg, step: act.step, server: server.address, changes: JSON.stringify(changed), started_at: this.clock.now() })
        .returning<{ id: string }[]>('id');
      return made!.id;
    });
  }

  private async finish(action: string, outcome: string): Promise<void> {
    await this.database('actions').where({ id: action }).update({ finished_at: this.clock.now(), outcome });
  }
}

/** The zone is not as it was seen (RFC 2136 §2.4): somebody has changed it since. */
const EDITED: ReadonlySet<number> = new Set([RCODE.NXRRSET, RCODE.YXRRSET]);

interface SetShown {
  readonly owner: string;
  readonly type: string;
  readonly ttl: number;
  readonly data: readonly string[];
}

function describe(change: SetChange): { before: SetShown | null; after: SetShown | null } {
  const show = (set: RRset | undefined): SetShown | null =>
    set ? { owner: set.owner.toString(), type: typeMnemonic(set.type), ttl: set.ttl, data: set.data.map((data) => printRdata(set.type, data)) } : null;
  return { before: show(change.before), after: show(change.after) };
}
