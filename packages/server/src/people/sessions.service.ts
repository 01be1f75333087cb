import { createHash, randomBytes, randomUUID } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { Must, Role, Session } from '@wanderon/contract';
import { Clock, WALL_CLOCK } from '../clock/clock';
import { CONFIG, Config } from '../config';
import { DATABASE, Database } from '../db/database';
import { isId } from '../db/ids';
import { LiveService } from '../live/live.service';
import { notFound } from '../refusals';
import { Caller } from './allow';

/** Seconds within which activity is not written down again. */
const NOTED = 60;
/** Sessions that are remembered as somebody's. */
const MET = 10_000;
/** Characters of what a browser calls itself that are kept. */
const AGENT = 200;

export interface NewSession {
  readonly address: string;
  readonly agent: string;
}

interface CallerRow {
  id: string;
  login: string;
  name: string;
  role: Role;
  csrf: string;
  session: string;
  seen_at: number;
  must_change: boolean;
  demanded: boolean;
  factor: boolean;
}

/** Who is signed in where. Sessions run by the machine's clock; they end by themselves after their whole time, and after idle time. */
@Injectable()
export class SessionService {
  /** Tokens, as digests, that stood for somebody when they were seen last, the oldest first. */
  private readonly met = new Set<string>();
  private readonly idle: number;
  private readonly whole: number;

  constructor(
    @Inject(DATABASE) private readonly database: Database,
    @Inject(WALL_CLOCK) private readonly clock: Clock,
    @Inject(CONFIG) config: Config,
    private readonly live: LiveService,
  ) {
    this.idle = config.WANDERON_SESSION_IDLE_MINUTES * 60;
    this.whole = config.WANDERON_SESSION_HOURS * 3600;
  }

  /** Gives the token of a new session. */
  async begin(person: string, { address, agent }: NewSession, transaction: Database): Promise<string> {
    const now = this.clock.now();
    const token = randomBytes(32).toString('base64url');
    await transaction('sessions')
      .where('expires_at', '<', now)
      .orWhere('seen_at', '<', now - this.idle)
      .delete();
    await transaction('sessions').insert({
      id: randomUUID(),
      token_hash: digest(token),
      person_id: person,
      csrf: randomBytes(24).toString('base64url'),
      begun_at: now,
      seen_at: now,
      expires_at: now + this.whole,
      address,
      agent: agent.slice(0, AGENT),
    });
    await transaction('people').where({ id: person }).update({ seen_at: now });
    return token;
  }

  /** Who a token stands for; undefined where it stands for nobody any more. `active`: somebody is there, and not a page by itself. */
  async callerOf(token: string | undefined, active: boolean): Promise<Caller | undefined> {
    if (!token) return undefined;
    const now = this.clock.now();
    const row = await this.standing(now)
      .join('people', 'people.id', 'sessions.person_id')
      .where({ 'sessions.token_hash': digest(token), 'people.disabled': false })
      .first<CallerRow | undefined>(
        'people.id',
        'people.login',
        'people.name',
        'people.role',
        'people.must_change',
        'people.demanded',
        this.database.raw('people.factor_since is not null as factor'),
        'sessions.csrf',
        'sessions.id as session',
        'sessions.seen_at',
      );
    this.meet(token, row !== undefined);
    if (!row) return undefined;
    if (active && now - row.seen_at > NOTED) await this.noted(row, now);
    const { id, login, name, role, csrf, session, must_change, demanded, factor } = row;
    return { id, login, name, role, csrf, session, demanded, factor, must: mustOf(must_change, demanded, factor) };
  }

  /** Whether a token stood for somebody when it was seen last, without asking whether it does still: it says who goes first, and no more. */
  isMet(token: string | undefined): boolean {
    return token !== undefined && this.met.has(digest(token));
  }

  private meet(token: string, stands: boolean): void {
    const mark = digest(token);
    this.met.delete(mark);
    if (!stands) return;
    this.met.add(mark);
    const [oldest] = this.met;
    if (this.met.size > MET) this.met.delete(oldest!);
  }

  private async noted({ id, session }: CallerRow, now: number): Promise<void> {
    await this.database('sessions').where({ id: session }).update({ seen_at: now });
    await this.database('people').where({ id }).update({ seen_at: now });
  }

  private standing(now: number) {
    return this.database('sessions')
      .where('sessions.expires_at', '>', now)
      .andWhere('sessions.seen_at', '>', now - this.idle);
  }

  async list(caller: Caller): Promise<Session[]> {
    const rows = await this.standing(this.clock.now())
      .where({ person_id: caller.id })
      .orderBy('seen_at', 'desc')
      .select<{ id: string; begun_at: number; seen_at: number; expires_at: number; address: string; agent: string }[]>('*');
    return rows.map(({ id, begun_at: begun, seen_at: seen, expires_at, address, agent }) => {
      const ends = Math.min(expires_at, seen + this.idle);
      return { id, begun, seen, ends, address, agent, own: id === caller.session };
    });
  }

  /** How many each person has. */
  async counts(): Promise<ReadonlyMap<string, number>> {
    const rows = await this.standing(this.clock.now())
      .groupBy('person_id')
      .select<{ person_id: string; n: number }[]>('person_id', this.database.raw('count(*)::int as n'));
    return new Map(rows.map((row) => [row.person_id, row.n]));
  }

  /** Ends one session of a person. Throws a NotFound where there is none. */
  async end(person: string, id: string, transaction: Database): Promise<void> {
    const ended = isId(id) ? await transaction('sessions').where({ id, person_id: person }).delete() : 0;
    if (ended === 0) throw notFound('session');
    await this.tell(person, transaction);
  }

  /** Ends what a person has open, but for one that goes on; gives how many ended. */
  async endAll(person: string, but: string | undefined, transaction: Database): Promise<number> {
    const all = transaction('sessions').where({ person_id: person });
    const ended = await (but === undefined ? all : all.andWhereNot({ id: but })).delete();
    await this.tell(person, transaction);
    return ended;
  }

  /** Streams of events end with their session, in every process. */
  private async tell(person: string, transaction: Database): Promise<void> {
    await transaction.raw('select pg_notify(?, ?)', this.live.asNotice({ topic: 'sessions', person }));
  }
}

function mustOf(mustChange: boolean, demanded: boolean, factor: boolean): Must | null {
  if (mustChange) return 'password';
  return demanded && !factor ? 'second factor' : null;
}

function digest(token: string): string {
  return createHash('sha256').update(token).digest('hex');
}
