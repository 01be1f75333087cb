import { Inject, Injectable, OnModuleDestroy, OnModuleInit } from '@nestjs/common';
import { CONFIG, Config } from '../config';
import { DATABASE, Database } from '../db/database';
import { StandingClient } from '../db/standingClient';

/** The first half of the advisory lock that says that a process is alive; the second half is the process's number. */
const ALIVE = 9009;

/**
 * Who has what in hand. A claim is a row; it is good for as long as the process that made it holds a lock on its own number,
 * which its one connection for that purpose keeps and the database lets go of when the process dies. Nobody waits for anybody.
 */
@Injectable()
export class Claims implements OnModuleInit, OnModuleDestroy {
  /** Says in SQL of a row of `claims` that the process which made it is alive. */
  static readonly LIVE = Claims.isAlive('claims.process');
  private process = 0;
  private readonly client: StandingClient;
  private readonly mine = new Set<string>();

  constructor(
    @Inject(DATABASE) private readonly database: Database,
    @Inject(CONFIG) config: Config,
  ) {
    // Without the lock nothing is claimed; a new number makes what was in hand free for others.
    this.client = new StandingClient(
      config.WANDERON_DATABASE,
      async (client) => {
        const { rows } = await client.query<{ n: number }>(`select nextval('processes')::int as n`);
        await client.query('select pg_advisory_lock($1, $2)', [ALIVE, rows[0]!.n]);
        this.process = rows[0]!.n;
      },
      () => (this.process = 0),
    );
  }

  /** Says in SQL that the process of a number is alive; other databases of the cluster have processes of their own. */
  static isAlive(column: string): string {
    return `exists (select 1 from pg_locks join pg_database on pg_database.oid = pg_locks.database
      where datname = current_database() and locktype = 'advisory' and classid = ${ALIVE} and objid = ${column} and granted)`;
  }

  /** The number of this process; 0 while it holds no lock on one, and must take nothing in hand. */
  get number(): number {
    return this.process;
  }

  async onModuleInit(): Promise<void> {
    await this.client.open();
  }

  async onModuleDestroy(): Promise<void> {
    await this.client.close();
  }

  /** False where another process, or this one, has it in hand. */
  async take(move: string, work: string): Promise<boolean> {
    const name = `${move}/${work}`;
    if (this.mine.has(name) || this.process === 0) return false;
    this.mine.add(name);
    try {
      const { rows } = await this.database.raw<{ rows: unknown[] }>(
        `insert into claims (move_id, work, process) values (?, ?, ?)
         on conflict (move_id, work) do update set process = excluded.process
          where claims.process = excluded.process
             or not ${Claims.LIVE}
         returning process`,
        [move, work, this.process],
      );
      if (rows.length > 0) return true;
    } catch (error) {
      this.mine.delete(name);
      throw error;
    }
    this.mine.delete(name);
    return false;
  }

  async release(move: string, work: string): Promise<void> {
    try {
      await this.database('claims').where({ move_id: move, work, process: this.process }).delete();
    } finally {
      this.mine.delete(`${move}/${work}`);
    }
  }
}
