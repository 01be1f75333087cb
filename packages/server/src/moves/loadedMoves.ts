import { Inject, Injectable, OnModuleDestroy } from '@nestjs/common';
import { Subscription } from 'rxjs';
import { CLOCK, Clock } from '../clock/clock';
import { Recent } from '../db/recent';
import { DATABASE, Database } from '../db/database';
import { LiveService } from '../live/live.service';
import { PeopleService } from '../people/people.service';
import { LegLoader, LoadedMove } from './legLoader';
import { MoveStore } from './move.store';

/** Rows of ledgers in the moves that are held. */
const HELD = 100_000;
/** Seconds after which what depends on the time of day is worked out anew, at the lab's pace where it hurries. */
const FRESH = 2;

/** A move with what its pages show beside it. */
export interface ShownMove extends LoadedMove {
  /** Names of those who decided in it, by id. */
  readonly people: ReadonlyMap<string, string>;
  /** The steps of each leg for which something was sent to a server, whatever came of it. */
  readonly sent: ReadonlyMap<string, readonly string[]>;
}

/**
 * Moves as pages show them: one is read and worked out once for everybody who looks at it, until it changes. Acts and the
 * engine read for themselves, under the move's lock.
 */
@Injectable()
export class LoadedMoves implements OnModuleDestroy {
  private held = new Recent<ShownMove>(HELD);
  private readonly reading = new Map<string, Promise<ShownMove>>();
  private readonly subscription: Subscription;

  constructor(
    private readonly store: MoveStore,
    private readonly loader: LegLoader,
    private readonly people: PeopleService,
    @Inject(DATABASE) private readonly database: Database,
    @Inject(CLOCK) private readonly clock: Clock,
    live: LiveService,
  ) {
    // What a move rests on beside its own rows.
    this.subscription = live.changes.subscribe(({ topic }) => {
      if (topic === 'hosts' || topic === 'clock') this.held = new Recent(HELD);
    });
  }

  onModuleDestroy(): void {
    this.subscription.unsubscribe();
  }

  /** Throws where there is no such move. */
  async get(id: string): Promise<ShownMove> {
    return this.loader.prepared(await this.unprepared(id));
  }

  /** As `get`, and what takes long to work out of a large plan may not be known yet: for what is shown without it. */
  async unprepared(id: string): Promise<ShownMove> {
    const version = await this.store.versionOf(id);
    const held = this.held.get(id);
    if (held?.move.version === version && Math.abs(this.clock.now() - held.current.leg.now) <= FRESH * Math.max(1, this.clock.rate())) return held;
    const key = `${id} ${version}`;
    let reading = this.reading.get(key);
    if (!reading) {
      reading = this.read(id).finally(() => this.reading.delete(key));
      this.reading.set(key, reading);
    }
    return reading;
  }

  /** It will be asked for in a moment: it is read meanwhile. Whoever asks hears of what is wrong. */
  expect(id: string): void {
    this.unprepared(id).catch(() => undefined);
  }

  private async read(id: string): Promise<ShownMove> {
    const loaded = await this.loader.load(id);
    const deciders = loaded.legs.flatMap((one) => one.decisions.flatMap((decision) => decision.person ?? []));
    const [people, sent] = await Promise.all([this.people.names(deciders), this.sentFor(loaded)]);
    const shown = { ...loaded, people, sent };
    this.held.set(id, shown, 1 + loaded.legs.reduce((sum, one) => sum + one.rows.length, 0));
    return shown;
  }

  private async sentFor({ legs }: LoadedMove): Promise<ReadonlyMap<string, readonly string[]>> {
    const ids = legs.map(({ row }) => row.id);
    const rows = await this.database<{ leg_id: string; step: string }>('actions').whereIn('leg_id', ids).distinct('leg_id', 'step');
    return new Map(ids.map((id) => [id, rows.filter((row) => row.leg_id === id).map((row) => row.step)]));
  }
}
