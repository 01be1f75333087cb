import { Inject, Injectable, Logger, OnModuleDestroy, OnModuleInit } from '@nestjs/common';
import { Client } from 'pg';
import { CONFIG, Config } from '../config';
import { DATABASE, Database } from '../db/database';

/** The first half of the advisory lock that says that a process is alive; the second half is the process's number. */
const ALIVE = 9009;

/**
 * Who has what in hand. A claim is a row; it is good for as long as the process that made it holds a lock on its own number,
 * which its one connection for that purpose keeps and the database lets go of when the process dies. Nobody waits for anybody.
 */
@Injectable()
export class Claims implements OnModuleInit, OnModuleDestroy {
  /** Says in SQL of a row of `claims` that the process which made it is alive. */
  static readonly LIVE = `exists (select 1 from pg_locks where locktype = 'advisory' and classid = ${ALIVE} and objid = claims.process and granted)`;
  private readonly log = new Logger('claims');
  private client: Client | undefined;
  private process = 0;
  private closing = false;
  private readonly mine = new Set<string>();

  constructor(
    @Inject(DATABASE) private readonly database: Database,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  async onModuleInit(): Promise<void> {
    await this.connect();
  }

  async onModuleDestroy(): Promise<void> {
    this.closing = true;
    await this.client?.end();
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

  private async connect(): Promise<void> {
    const client = new Client({ connectionString: this.config.WANDERON_DATABASE });
    client.on('error', (error) => {
      if (this.closing) return;
      this.log.error(error);
      // Without the lock nothing is claimed; a new number makes what is in hand free for others.
      this.process = 0;
      setTimeout(() => void this.connect().catch((again: unknown) => this.log.error(again)), 1000);
    });
    await client.connect();
    const { rows } = await client.query<{ n: number }>(`select nextval('processes')::int as n`);
    await client.query('select pg_advisory_lock($1, $2)', [ALIVE, rows[0]!.n]);
    this.client = client;
    this.process = rows[0]!.n;
  }
}
