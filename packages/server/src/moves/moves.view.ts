import { Inject, Injectable } from '@nestjs/common';
import { AnsweringView, AnswersView, HorizonsView, LedgerPage, MoveView, WatchView, ledgerQuerySchema } from '@wanderon/contract';
import { Leg, ZoneSight, ownerOf, typeOf } from '@wanderon/core';
import { z } from 'zod';
import { CLOCK, Clock } from '../clock/clock';
import { Network } from '../network/network';
import { WebsiteLookStore } from '../watch/websiteLook.store';
import { watchView } from '../watch/watchView';
import { notFound } from '../refusals';
import { ledgerPage, remarksOf } from './ledgerView';
import { LoadedLeg, isLarge } from './legLoader';
import { legView } from './legView';
import { LoadedMoves, ShownMove } from './loadedMoves';
import { MoveStore } from './move.store';
import { ObservationStore } from './observation.store';
import { derivedView, summaryOf } from './summary';

/** Horizons that are shown: nobody reads more, and the last ones decide. */
const HORIZONS = 300;
/** Runs of lookouts that the curve is drawn from. */
const RUNS = 20_000;

/** What the pages show of moves: worked out from what is stored with the functions that the engine uses. */
@Injectable()
export class MoveViews {
  constructor(
    private readonly store: MoveStore,
    private readonly loaded: LoadedMoves,
    private readonly observations: ObservationStore,
    private readonly websiteLooks: WebsiteLookStore,
    private readonly network: Network,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  /** As `person` sees it: what undo takes back is theirs. */
  async get(id: string, person: string): Promise<MoveView> {
    const shown = await this.loaded.get(id);
    const legs = shown.legs.map((one) => legView(one, shown.people, shown.sent.get(one.row.id) ?? [], person));
    return { ...summaryOf(shown, this.clock.now()), version: shown.move.version, note: shown.move.note, legs };
  }

  /** A page of rows in their order, with what is said of them; throws a NotNow where the row that it comes after is gone. */
  async ledger(legId: string, query: z.output<typeof ledgerQuerySchema>): Promise<LedgerPage> {
    return this.ledgerOf(await this.store.moveOf(legId), query, legId);
  }

  async latestLedger(id: string, query: z.output<typeof ledgerQuerySchema>): Promise<LedgerPage> {
    return this.ledgerOf(id, query);
  }

  /** Of the current leg, where `legId` names no other. Rows are given at once; what is said of those of a large plan comes once it is known. */
  private async ledgerOf(id: string, query: z.output<typeof ledgerQuerySchema>, legId?: string): Promise<LedgerPage> {
    const { legs, current, people } = await this.loaded.unprepared(id);
    const leg = legs.find((one) => one.row.id === legId) ?? current;
    const page = ledgerPage(leg, query, people);
    if (!isLarge(leg)) return { ...page, remarks: remarksOf(leg, page) };
    if (page.next !== null) return { ...page, remarks: [] };
    return { ...page, remarks: remarksOf((await this.loaded.get(id)).legs.find((one) => one.row.id === leg.row.id)!) };
  }

  /** Servers whose last answers are known. */
  async answering(legId: string): Promise<AnsweringView> {
    const { leg } = await this.leg(legId);
    return {
      servers: serversSeen(leg).map(({ server, address, of, at, sight }) => ({ server, address, of, at, sets: Object.keys(sight.sets).length })),
    };
  }

  /** What a server answered last; throws where nothing is known of one at this address. */
  async answers(legId: string, address: string): Promise<AnswersView> {
    const { leg } = await this.leg(legId);
    const found = serversSeen(leg).find((one) => one.address === address);
    if (!found) throw notFound('server');
    const { server, at, sight } = found;
    const sets = Object.entries(sight.sets).map(([key, { ttl, data }]) => ({ owner: ownerOf(key), type: typeOf(key), ttl, data: [...data] }));
    return { server, address, at, sets };
  }

  async horizons(legId: string): Promise<HorizonsView> {
    const { leg } = await this.leg(legId);
    const sets = leg.plan.chosen ? [...leg.times.sets].sort((a, b) => b.horizon.at - a.horizon.at) : [];
    return {
      horizons: sets.slice(0, HORIZONS).map(({ key, horizon }) => ({ owner: ownerOf(key), type: typeOf(key), horizon: derivedView(horizon) })),
      total: sets.length,
    };
  }

  async watch(legId: string): Promise<WatchView> {
    const { leg, row } = await this.leg(legId);
    const runs = leg.plan.chosen && leg.times.t0 ? await this.observations.lookoutRuns(row.id, RUNS) : [];
    return watchView(leg, this.network.lookouts, runs, await this.websiteLooks.latest(row.id));
  }

  private async leg(legId: string): Promise<LoadedLeg & Pick<ShownMove, 'people'>> {
    const { legs, people } = await this.loaded.get(await this.store.moveOf(legId));
    return { ...legs.find((one) => one.row.id === legId)!, people };
  }
}

/** Servers of both hosts with what they answered last, where that was more than a refusal. */
function serversSeen({ plan, seen }: Leg): { server: string; address: string; of: 'old' | 'new'; at: number; sight: ZoneSight }[] {
  const fresh = new Set(plan.newServers.map((one) => one.address));
  return seen.zones
    .flatMap(({ server, address, sightings }) => {
      const last = sightings.at(-1);
      return last && !last.value.refused
        ? [{ server, address, of: fresh.has(address) ? ('new' as const) : ('old' as const), at: last.last, sight: last.value }]
        : [];
    })
    .sort((a, b) => b.of.localeCompare(a.of));
}
