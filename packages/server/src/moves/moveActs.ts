import { Inject, Injectable } from '@nestjs/common';
import { StepKind } from '@wanderon/core';
import { DATABASE, Database } from '../db/database';
import { EventStore } from '../events/event.store';
import { JobQueue } from '../jobs/queue';
import { LiveService } from '../live/live.service';
import { Caller } from '../people/allow';
import { ProblemError } from '../problem';
import { Leg, Move, RulingRow, StepRow } from './leg';
import { MoveStore } from './move.store';

export const KEPT = 'Nothing was changed.';

/** What everything that people do to a move has in common: one at a time, on an open move, recorded, and told to the open pages. */
@Injectable()
export class MoveActs {
  constructor(
    @Inject(DATABASE) private readonly database: Database,
    private readonly store: MoveStore,
    private readonly events: EventStore,
    private readonly queue: JobQueue,
    private readonly live: LiveService,
  ) {}

  /** One person at a time acts on a move, whichever process they reach: what was checked still holds when it is written. */
  async exclusive<T>(id: string, act: () => Promise<T>): Promise<T> {
    return this.database.transaction(async (lock) => {
      await lock.raw('select pg_advisory_xact_lock(hashtextextended(?, 2))', [id]);
      return act();
    });
  }

  async open(id: string): Promise<{ move: Move; leg: Leg; steps: StepRow[]; rulings: RulingRow[] }> {
    const move = await this.store.get(id);
    if (move.state !== 'open') throw new ProblemError(409, `This move is ${move.state}.`, { kept: KEPT });
    const leg = (await this.store.legs(id)).at(-1)!;
    const [steps, rulings] = await Promise.all([this.store.steps(leg.id), this.store.rulings(leg.id)]);
    return { move, leg, steps, rulings };
  }

  refuseOnce(steps: readonly StepRow[], kinds: readonly StepKind[], why: string): void {
    if (steps.some((step) => kinds.includes(step.kind) && (step.decided_at !== null || step.state === 'done') && step.state !== 'failed'))
      throw new ProblemError(409, why, { kept: KEPT });
  }

  event(move: Move, person: Caller, kind: string, text: string, more: { before?: unknown; after?: unknown }, database: Database): Promise<void> {
    return this.events.add({ person: person.id, domain: move.domain, move: move.id, kind, text, ...more }, database);
  }

  async changed(id: string): Promise<void> {
    await this.store.wake(id, 0);
    await this.live.tell({ topic: 'move', move: id });
    await this.queue.send(id);
  }
}
