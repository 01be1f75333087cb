import { Inject, Injectable } from '@nestjs/common';
import { CLOCK, Clock } from '../clock/clock';
import { DATABASE, Database } from '../db/database';
import { EventStore } from '../events/event.store';
import { LiveService } from '../live/live.service';
import { Caller } from '../people/allow';
import { ProblemError } from '../problem';
import { DecisionStore, NewDecision } from './decision.store';
import { LegLoader, LoadedLeg, LoadedMove } from './legLoader';
import { MoveStore } from './move.store';
import { summaryOf } from './summary';
import { WakeUps } from './wakeUps';

export const KEPT = 'Nothing was changed.';

/** What an act is given: the move as it stands, locked, and the transaction in which everything is written. */
export interface Act extends LoadedMove {
  readonly leg: LoadedLeg;
  readonly transaction: Database;
  readonly at: number;
  /** A decision and its word in the trail. */
  readonly decide: (decision: Omit<NewDecision, 'person'>, event: { kind: string; text: string; before?: unknown; after?: unknown }) => Promise<number>;
  readonly note: (event: { kind: string; text: string; before?: unknown; after?: unknown }) => Promise<void>;
}

/**
 * Every change of a move: in one short transaction that holds the move's row, with its event, its summary and its version.
 * Acts on one move that reach one process wait for each other without a connection.
 */
@Injectable()
export class MoveActs {
  private readonly turns = new Map<string, Promise<unknown>>();

  constructor(
    @Inject(DATABASE) private readonly database: Database,
    @Inject(CLOCK) private readonly clock: Clock,
    private readonly store: MoveStore,
    private readonly loader: LegLoader,
    private readonly decisions: DecisionStore,
    private readonly events: EventStore,
    private readonly wakeUps: WakeUps,
    private readonly live: LiveService,
  ) {}

  /** What a person does to a leg of an open move. Throws a ProblemError where there is none, or the move has ended. */
  async act<T>(legId: string, person: Caller, work: (act: Act) => Promise<T>): Promise<T> {
    return this.onMove(await this.store.moveOf(legId), person, work, legId);
  }

  /** What a person does to an open move; to its current leg, where `legId` names no other. */
  async onMove<T>(id: string, person: Caller, work: (act: Act) => Promise<T>, legId?: string): Promise<T> {
    const done = await this.write(id, async (loaded, transaction) => {
      if (loaded.move.state !== 'open') throw new ProblemError(409, `This move is ${loaded.move.state}.`, { kept: KEPT });
      const at = this.clock.now();
      const { move } = loaded;
      const current = loaded.legs.find((one) => one.row.id === legId) ?? loaded.current;
      const note: Act['note'] = (event) => this.events.add({ person: person.id, domain: move.domain, move: move.id, ...event }, transaction);
      const decide: Act['decide'] = async (decision, event) => {
        const made = await this.decisions.add(current.row.id, at, { ...decision, person: person.id }, transaction);
        await note(event);
        return made;
      };
      const result = await work({ ...loaded, leg: current, transaction, at, decide, note });
      await transaction('moves').where({ id, state: 'open' }).update({ wake_at: 0 });
      return result;
    });
    this.wakeUps.say(id);
    return done;
  }

  /** A change of anybody's, the engine's too: the row is locked, the version counted up, the summary and the pages' event made. */
  async write<T>(id: string, work: (loaded: LoadedMove, transaction: Database) => Promise<T | ((after: LoadedMove) => Promise<void>)>): Promise<T> {
    return this.inTurn(id, () =>
      this.database.transaction(async (transaction) => {
        const result = await work(await this.loader.load(id, transaction, true), transaction);
        const after = await this.loader.load(id, transaction);
        // What follows from the change, seen as it is afterwards.
        if (typeof result === 'function') await (result as (after: LoadedMove) => Promise<void>)(after);
        const summary = summaryOf(after, this.clock.now());
        await transaction('moves')
          .where({ id })
          .update({ version: transaction.raw('version + 1'), summary: JSON.stringify(summary) });
        await this.live.tellMove(id, after.move.version + 1, summary, transaction);
        return result as T;
      }),
    );
  }

  private async inTurn<T>(id: string, work: () => Promise<T>): Promise<T> {
    const before = this.turns.get(id) ?? Promise.resolve();
    const mine = before.then(work, work);
    const settled = mine.catch(() => undefined);
    this.turns.set(id, settled);
    try {
      return await mine;
    } finally {
      if (this.turns.get(id) === settled) this.turns.delete(id);
    }
  }
}
