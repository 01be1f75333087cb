import { Inject, Injectable, OnModuleDestroy } from '@nestjs/common';
import { Subscription } from 'rxjs';
import { CLOCK, Clock } from '../clock/clock';
import { Recent } from '../db/recent';
import { LiveService } from '../live/live.service';
import { LegLoader, LoadedMove } from './legLoader';
import { MoveStore } from './move.store';

/** Rows of ledgers in the moves that are held. */
const HELD = 60_000;
/** Seconds after which what depends on the time of day is worked out anew, at the lab's pace where it hurries. */
const FRESH = 2;

/**
 * Moves as pages show them: one is read and worked out once for everybody who looks at it, until it changes. Acts and the
 * engine read for themselves, under the move's lock.
 */
@Injectable()
export class LoadedMoves implements OnModuleDestroy {
  private held = new Recent<LoadedMove>(HELD);
  private readonly reading = new Map<string, Promise<LoadedMove>>();
  private readonly subscription: Subscription;

  constructor(
    private readonly store: MoveStore,
    private readonly loader: LegLoader,
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
  async get(id: string): Promise<LoadedMove> {
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

  private async read(id: string): Promise<LoadedMove> {
    const loaded = await this.loader.load(id);
    this.held.set(id, loaded, 1 + loaded.legs.reduce((sum, one) => sum + one.rows.length, 0));
    return loaded;
  }
}
