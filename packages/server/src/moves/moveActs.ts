import { Inject, Injectable } from '@nestjs/common';
import { Knex } from 'knex';
import { Acted } from '@wanderon/contract';
import { Decision } from '@wanderon/core';
import { CLOCK, Clock } from '../clock/clock';
import { DATABASE, Database } from '../db/database';
import { EventStore, NewEvent, isOnRecordAlready } from '../events/event.store';
import { LiveService } from '../live/live.service';
import { Caller } from '../people/allow';
import { NotNow, Refusal, notFound } from '../refusals';
import { DecisionStore, NewDecision } from './decision.store';
import { LegLoader, LegParts, LoadedLeg, LoadedMove, MadeDecision, MoveParts } from './legLoader';
import { MoveRow } from './move.rows';
import { MoveStore } from './move.store';
import { deskColumns, summaryOf } from './summary';
import { WakeUps } from './wakeUps';

export const KEPT = 'Nothing was changed.';

/** Seconds of real time in which more of the kind are likely to come: somebody works through the rows of a ledger. */
const TYPING = 1;

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

/** A decision, and its word in the trail. */
export type Word = Parameters<Act['decide']>;

/** An act that rests on what is known of its leg, and on nothing that has to be worked out of it. */
export interface LightAct {
  readonly move: MoveRow;
  readonly leg: LegParts;
  readonly transaction: Database;
}

/** What was written, and the new version of its move; `committed` is called once that is so. */
interface Decided {
  readonly version: number;
  readonly committed: () => void;
  /** Nothing had to be decided, and nothing was written. */
  readonly isIdle?: true;
}

/** Who does it, and under which name the page asks for it. */
type Actor = Pick<Caller, 'id' | 'act'>;

interface LightWork {
  readonly legId: string;
  readonly person: Actor | null;
  /** Undefined where there is nothing to decide. */
  readonly work: (act: LightAct) => Promise<Word | undefined>;
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
    const inTransaction = async (transaction: Database): Promise<Decided> => {
      const loaded = await this.loader.load(id, transaction, true);
      refuseEnded(loaded.move);
      const current = loaded.legs.find((one) => one.row.id === legId) ?? loaded.current;
      if (current !== loaded.current) throw new NotNow('This stage is over: the move goes on in a later one.', { kept: KEPT });
      const words = this.words(loaded.move, current.row.id, person, transaction);
      let isMore = false;
      const act = {
        ...{ ...loaded, ...words, leg: current },
        // Whoever takes it may change more than is decided.
        get transaction(): Database {
          isMore = true;
          return transaction;
        },
      };
      await work(act);
      const version = loaded.move.version + 1;
      await transaction.with('changed', this.counted(id, version, 0, transaction)).select(this.notice(id, version, person, transaction));
      const known = this.loader.held(id);
      const keeps = !isMore && known?.move.version === loaded.move.version;
      return { version, committed: () => keeps && this.loader.decided(known, words.made) };
    };
    return this.inTurnOf(id, 0, person, () => this.database.transaction(inTransaction));
  }

  /**
   * As `act`, for one decision that needs nothing worked out: `work` gives it, with its word in the trail. Nothing is locked and nothing
   * read where this process knows the move: the one statement that writes it all does so only where the move still has the version that
   * is known. Where it has not, and before anything is refused, `work` is done once more under the lock.
   */
  async lightly(legId: string, person: Actor, work: LightWork['work']): Promise<Acted> {
    const wish = { legId, person, work };
    return this.afterTyping(legId, person, async (id, wakeAt) => (await this.decideUnlocked(id, wish, wakeAt)) ?? this.decideLocked(id, wish, wakeAt));
  }

  /** The same for somebody without an account, whom a link lets in; under the lock, since `work` writes beside its decision. */
  async lightlyByLink(legId: string, work: LightWork['work']): Promise<Acted> {
    return this.afterTyping(legId, null, (id, wakeAt) => this.decideLocked(id, { legId, person: null, work }, wakeAt));
  }

  /** In its turn; the engine looks at what was decided a little later, since more of the kind is likely to come. */
  private async afterTyping(legId: string, person: Actor | null, work: (id: string, wakeAt: number) => Promise<Decided>): Promise<Acted> {
    const rate = this.clock.rate();
    // Where time stands still, later never comes.
    const wakeAt = rate === 0 ? 0 : this.clock.now() + TYPING * Math.max(1, rate);
    const id = await this.store.moveOf(legId);
    return this.inTurnOf(id, wakeAt, person, () => work(id, wakeAt));
  }

  private async decideUnlocked(id: string, wish: LightWork, wakeAt: number): Promise<Decided | undefined> {
    const held = this.loader.held(id);
    if (!held) return undefined;
    try {
      const decided = await this.decide(held, wish, wakeAt, this.database);
      return decided?.isIdle ? undefined : decided;
    } catch (error) {
      // What is known may be older than what is so.
      if (error instanceof Refusal) return undefined;
      throw error;
    }
  }

  private decideLocked(id: string, wish: LightWork, wakeAt: number): Promise<Decided> {
    return this.database.transaction(async (transaction) => {
      const decided = await this.decide(await this.loader.locked(id, transaction), wish, wakeAt, transaction);
      if (!decided) throw new Error('a move changed under its lock');
      return decided;
    });
  }

  /** Undefined where the move was changed by somebody else meanwhile, and nothing was written. */
  private async decide(known: MoveParts, { legId, person, work }: LightWork, wakeAt: number, transaction: Database): Promise<Decided | undefined> {
    const { move, legs } = known;
    const leg = legs.find((one) => one.row.id === legId);
    if (!leg) throw notFound('leg');
    refuseEnded(move);
    const word = await work({ move, leg, transaction });
    if (!word) return { version: move.version, committed: () => undefined, isIdle: true };
    const [decision, event] = word;
    const by = person?.id ?? null;
    const said = this.events.row({ person: by, domain: move.domain, move: move.id, act: person?.act?.name, ...event });
    const version = move.version + 1;
    const moved = this.counted(move.id, version, wakeAt, transaction).where({ version: move.version, state: 'open' });
    const at = this.clock.now();
    const [made] = await this.decisions
      .addedIf(moved, legId, at, { ...decision, person: by }, transaction, said)
      .select<{ id: string }[]>('made.id', this.notice(move.id, version, person, transaction))
      .from('made');
    if (!made) return undefined;
    const kept = { leg: legId, decision: asKept(Number(made.id), { ...decision, person: by }, at) };
    return { version, committed: () => this.loader.decided(known, [kept]) };
  }

  private words(
    move: MoveRow,
    leg: string,
    person: Caller,
    transaction: Database,
  ): Pick<Act, 'decide' | 'decideOn' | 'note' | 'at'> & { readonly made: readonly MadeDecision[] } {
    const at = this.clock.now();
    const made: MadeDecision[] = [];
    let name = person.act?.name;
    const said = (event: Parameters<Act['note']>[0]): NewEvent => {
      // The first event of an act has its name.
      const act = name;
      name = undefined;
      return { person: person.id, domain: move.domain, move: move.id, act, ...event };
    };
    const note: Act['note'] = (event) => this.events.add(said(event), transaction);
    const decideOn: Act['decideOn'] = (of) => async (decision, event) => {
      const id = await this.decisions.add(of, at, { ...decision, person: person.id }, transaction, this.events.row(said(event)));
      made.push({ leg: of, decision: asKept(id, { ...decision, person: person.id }, at) });
      return id;
    };
    return { decide: decideOn(leg), decideOn, note, at, made };
  }

  /** One act in its turn; one that is on record already is not done again. The engine is woken by `wakeAt`, now where it is 0. */
  private async inTurnOf(id: string, wakeAt: number, person: Actor | null, work: () => Promise<Decided>): Promise<Acted> {
    const { version, isIdle } = await this.inTurn(id, async () => {
      const act = person?.act;
      if (act?.again && (await this.events.isOnRecord(person!.id, act.name))) return this.asItIs(id);
      try {
        const decided = await work();
        decided.committed();
        return decided;
      } catch (error) {
        // Another process took it before its answer was lost.
        if (act && isOnRecordAlready(error)) return this.asItIs(id);
        throw error;
      }
    });
    if (wakeAt === 0 && !isIdle) this.wakeUps.say(id);
    return { id, version };
  }

  private async asItIs(id: string): Promise<Decided> {
    return { version: (await this.store.get(id)).version, committed: () => undefined, isIdle: true };
  }

  /** The version counted up, and the engine to be woken. */
  private counted(id: string, version: number, wakeAt: number, transaction: Database): Knex.QueryBuilder {
    const wake = transaction.raw(`case when state = 'open' then least(wake_at, ?::float8) else wake_at end`, [wakeAt]);
    return transaction('moves').where({ id }).update({ version, wake_at: wake }).returning('id');
  }

  /** Tells the pages, once the transaction is through. */
  private notice(id: string, version: number, person: Actor | null, transaction: Database): Knex.Raw {
    return transaction.raw('pg_notify(?, ?)', this.live.asNotice({ topic: 'move', move: id, version, act: person?.act?.name }));
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
  async refresh(known: LoadedMove): Promise<void> {
    const { id, version } = known.move;
    await this.inTurn(id, () =>
      this.database.transaction(async (transaction) => {
        const move = await this.store.get(id, transaction, true);
        const loaded = move.version === version ? known : await this.loader.load(id, transaction);
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

/** A decision as it is read again: without what JSON leaves out. */
function asKept(id: number, { kind, subject = '', value = null, person, undoes }: NewDecision, at: number): Decision {
  return { id, kind, subject, value: JSON.parse(JSON.stringify(value)) as unknown, person, at, undoes: undoes ?? null };
}

function refuseEnded(move: MoveRow): void {
  if (move.state !== 'open') throw new NotNow(`This move is ${move.state}.`, { kept: KEPT });
}
