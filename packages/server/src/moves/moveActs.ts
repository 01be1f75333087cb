import { Inject, Injectable } from '@nestjs/common';
import { Knex } from 'knex';
import { Acted } from '@wanderon/contract';
import { CLOCK, Clock } from '../clock/clock';
import { DATABASE, Database } from '../db/database';
import { EventStore } from '../events/event.store';
import { LiveService } from '../live/live.service';
import { Caller } from '../people/allow';
import { NotNow } from '../refusals';
import { DecisionStore, NewDecision } from './decision.store';
import { LegLoader, LoadedLeg, LoadedMove } from './legLoader';
import { MoveRow } from './move.rows';
import { LockedLeg, MoveStore } from './move.store';
import { deskColumns, summaryOf } from './summary';
import { WakeUps } from './wakeUps';

export const KEPT = 'Nothing was changed.';

/** Seconds of real time in which more of the kind are likely to come: somebody works through the rows of a ledger. */
const TYPING = 2;

/** What an act is given: the move as it stands, locked, and the transaction in which everything is written. */
export interface Act extends LoadedMove {
  readonly leg: LoadedLeg;
  readonly transaction: Database;
  readonly at: number;
  /** A decision and its word in the trail. */
  readonly decide: (decision: Omit<NewDecision, 'person'>, event: { kind: string; text: string; before?: unknown; after?: unknown }) => Promise<number>;
  /** The same for a leg that this act has just made. */
  readonly decideOn: (leg: string) => Act['decide'];
  readonly note: (event: { kind: string; text: string; before?: unknown; after?: unknown }) => Promise<void>;
}

type Word = Parameters<Act['decide']>;

/** An act that rests on little: the leg's own row and what the act itself reads; a zone of thousands of sets is not loaded for it. */
export interface LightAct extends LockedLeg {
  readonly transaction: Database;
}

/**
 * Every change of a move: in one short transaction that holds the move's row, with its event and its version. Acts on one move
 * that reach one process wait for each other without a connection. The summary follows from the engine, which every act wakes.
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

  /** What a person does to a leg of an open move. Throws a NotFound where there is none, a NotNow where the move has ended. */
  async act(legId: string, person: Caller, work: (act: Act) => Promise<void>): Promise<Acted> {
    return this.onMove(await this.store.moveOf(legId), person, work, legId);
  }

  /** What a person does to an open move; to its current leg, where `legId` names no other. */
  async onMove(id: string, person: Caller, work: (act: Act) => Promise<void>, legId?: string): Promise<Acted> {
    return this.locked(id, 0, async (transaction) => {
      const loaded = await this.loader.load(id, transaction, true);
      refuseEnded(loaded.move);
      const current = loaded.legs.find((one) => one.row.id === legId) ?? loaded.current;
      if (current !== loaded.current) throw new NotNow('This leg is over: the move goes on in a later one.', { kept: KEPT });
      const words = this.words(loaded.move, current.row.id, person, transaction);
      await work({ ...loaded, ...words, leg: current, transaction });
      const version = loaded.move.version + 1;
      await transaction.with('changed', this.counted(id, version, 0, transaction)).select(this.notice(id, version, transaction));
      return version;
    });
  }

  /**
   * As `act`, for one decision that needs neither ledger nor observations: `work` gives it, with its word in the trail. `person` null:
   * somebody without an account, whom a link lets in.
   */
  async lightly(legId: string, person: Pick<Caller, 'id'> | null, work: (act: LightAct) => Promise<Word>): Promise<Acted> {
    const rate = this.clock.rate();
    // Where time stands still, later never comes.
    const wakeAt = rate === 0 ? 0 : this.clock.now() + TYPING * Math.max(1, rate);
    return this.locked(await this.store.moveOf(legId), wakeAt, async (transaction) => {
      const locked = await this.store.lockLeg(legId, transaction);
      const { move } = locked;
      refuseEnded(move);
      const [decision, event] = await work({ ...locked, transaction });
      const said = this.events.row({ person: person?.id ?? null, domain: move.domain, move: move.id, ...event });
      const version = move.version + 1;
      await this.decisions
        .added(legId, this.clock.now(), { ...decision, person: person?.id ?? null }, transaction, said)
        .with('changed', this.counted(move.id, version, wakeAt, transaction))
        .select(this.notice(move.id, version, transaction));
      return version;
    });
  }

  private words(move: MoveRow, leg: string, person: Caller, transaction: Database): Pick<Act, 'decide' | 'decideOn' | 'note' | 'at'> {
    const at = this.clock.now();
    const note: Act['note'] = (event) => this.events.add({ person: person.id, domain: move.domain, move: move.id, ...event }, transaction);
    const decideOn: Act['decideOn'] = (of) => async (decision, event) => {
      const said = { person: person.id, domain: move.domain, move: move.id, ...event };
      return this.decisions.add(of, at, { ...decision, person: person.id }, transaction, this.events.row(said));
    };
    return { decide: decideOn(leg), decideOn, note, at };
  }

  /** One act in its turn, in a transaction; `work` gives the new version. The engine is woken by `wakeAt`, now where it is 0. */
  private async locked(id: string, wakeAt: number, work: (transaction: Database) => Promise<number>): Promise<Acted> {
    const version = await this.inTurn(id, () => this.database.transaction(work));
    if (wakeAt === 0) this.wakeUps.say(id);
    return { id, version };
  }

  /** The version counted up, and the engine to be woken. */
  private counted(id: string, version: number, wakeAt: number, transaction: Database): Knex.QueryBuilder {
    const wake = transaction.raw(`case when state = 'open' then least(wake_at, ?::float8) else wake_at end`, [wakeAt]);
    return transaction('moves').where({ id }).update({ version, wake_at: wake }).returning('id');
  }

  /** Tells the pages, once the transaction is through. */
  private notice(id: string, version: number, transaction: Database): Knex.Raw {
    return transaction.raw('pg_notify(?, ?)', this.live.asNotice({ topic: 'move', move: id, version }));
  }

  /**
   * What the engine saw or did, and the summary anew. `work` may give what is to be written of the move as it is afterwards.
   * `only`: it writes observations and events, nothing else.
   */
  async write(
    id: string,
    work: (loaded: LoadedMove, transaction: Database) => Promise<((after: LoadedMove) => Promise<void>) | void>,
    only?: 'observations',
  ): Promise<void> {
    await this.inTurn(id, async () => {
      const committed = await this.database.transaction(async (transaction) => {
        const before = await this.loader.load(id, transaction, true);
        const then = await work(before, transaction);
        const after = only ? await this.loader.reobserved(before, transaction) : await this.loader.reload(id, transaction);
        await then?.(after.loaded);
        const version = after.loaded.move.version + 1;
        await this.summarise(after.loaded, version, transaction);
        return () => after.committed(version);
      });
      committed();
    });
  }

  /** Brings the summary up to date with what people did since it was made. */
  async refresh(id: string): Promise<void> {
    await this.inTurn(id, () =>
      this.database.transaction(async (transaction) => {
        const loaded = await this.loader.load(id, transaction, true);
        if (loaded.move.summarised !== loaded.move.version) await this.summarise(loaded, loaded.move.version, transaction);
      }),
    );
  }

  private async summarise(loaded: LoadedMove, version: number, transaction: Database): Promise<void> {
    const summary = summaryOf(loaded, this.clock.now());
    await transaction('moves')
      .where({ id: loaded.move.id })
      .update({ version, summarised: version, summary: JSON.stringify(summary), ...deskColumns(summary) });
    await this.live.tellMove(loaded.move.id, version, summary, transaction);
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

function refuseEnded(move: MoveRow): void {
  if (move.state !== 'open') throw new NotNow(`This move is ${move.state}.`, { kept: KEPT });
}
