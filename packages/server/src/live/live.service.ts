import { Inject, Injectable, OnModuleDestroy, OnModuleInit } from '@nestjs/common';
import { CursorTold, MoveSummary } from '@wanderon/contract';
import { Observable, Subject } from 'rxjs';
import { CONFIG, Config } from '../config';
import { DATABASE, Database } from '../db/database';
import { StandingClient } from '../db/standingClient';

export type Change =
  /** `act`: how the page that asked for it calls what a person did. */
  | { readonly topic: 'move'; readonly move: string; readonly version: number; readonly summary?: MoveSummary; readonly act?: string | undefined }
  | { readonly topic: 'hosts' | 'clock' | 'resolvers' }
  | { readonly topic: 'sweep'; readonly sweep: string }
  /** How far long work is; no words where it is over. */
  | (ProgressOf & { readonly topic: 'progress'; readonly doing: string; readonly asked: number; readonly left?: number | undefined })
  /** Where somebody's cursor stands; it is written nowhere. */
  | ({ readonly topic: 'cursor' } & CursorTold)
  /** To the processes themselves: sessions of somebody ended. */
  | { readonly topic: 'sessions'; readonly person: string }
  /** To the processes themselves: a survey under way is to end. */
  | { readonly topic: 'stop'; readonly move?: string; readonly sweep?: string };

/** What is under way: the survey of a move, or of a domain of a sweep; the act of a step. */
export interface ProgressOf {
  readonly move?: string;
  readonly step?: string;
  readonly sweep?: string;
  readonly domain?: string;
}

const CHANNEL = 'wanderon_changes';
/** Octets of a notification: PostgreSQL takes less than 8,000. */
const LONGEST = 7900;

/** Tells every open page, of every server process, what changed; the pages then read it anew. */
@Injectable()
export class LiveService implements OnModuleInit, OnModuleDestroy {
  private readonly subject = new Subject<Change>();
  private readonly client: StandingClient;

  constructor(
    @Inject(DATABASE) private readonly database: Database,
    @Inject(CONFIG) config: Config,
  ) {
    this.client = new StandingClient(config.WANDERON_DATABASE, async (client) => {
      client.on('notification', ({ payload }) => payload && this.subject.next(JSON.parse(payload) as Change));
      await client.query(`listen ${CHANNEL}`);
    });
  }

  get changes(): Observable<Change> {
    return this.subject.asObservable();
  }

  /** Within a transaction, so that it is told when what changed can be read; a summary too long for a notification is left out. */
  async tellMove(move: string, version: number, summary: MoveSummary | undefined, transaction: Database): Promise<void> {
    const whole = JSON.stringify({ topic: 'move', move, version, ...(summary ? { summary } : {}) } satisfies Change);
    const text = Buffer.byteLength(whole) <= LONGEST ? whole : JSON.stringify({ topic: 'move', move, version } satisfies Change);
    await transaction.raw('select pg_notify(?, ?)', [CHANNEL, text]);
  }

  async tell(change: Change): Promise<void> {
    await this.database.raw('select pg_notify(?, ?)', this.asNotice(change));
  }

  /** The arguments of pg_notify, for a statement that does more than telling. */
  asNotice(change: Change): [string, string] {
    return [CHANNEL, JSON.stringify(change)];
  }

  async onModuleInit(): Promise<void> {
    await this.client.open();
  }

  async onModuleDestroy(): Promise<void> {
    this.subject.complete();
    await this.client.close();
  }
}
