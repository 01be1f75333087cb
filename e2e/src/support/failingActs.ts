import knex, { Knex } from 'knex';
import { Api } from '../../../command/src/api';

/** Written by the engine, by whoever looks, or by each request; nothing of it is a person's act. */
const NOT_OF_ACTS = [
  'events',
  'trail_seals',
  'observations',
  'claims',
  'website_looks',
  'sign_in_limits',
  'failing',
  'knex_migrations',
  'knex_migrations_lock',
];
/** Columns that are not compared: when somebody was there, and what the engine makes of a move. */
const PASSING = ['seen_at', 'version', 'summarised', 'summary', 'wake_at', 'desk_group', 'desk_due'];

export interface ActRequest {
  readonly method: string;
  readonly path: string;
  readonly body?: unknown;
  /** Somebody else than the administrator; undefined headers: nobody. */
  readonly headers?: Readonly<Record<string, string>>;
  /** Words that it leaves in the trail, where that is not one. */
  readonly words?: number;
}

/** A database in which the events of acts can be made to fail, or their data, when the transaction in which they stand is to be committed. */
export class FailingActs {
  /** Routes of which it was tried. */
  readonly driven = new Set<string>();
  readonly database: Knex;
  private readonly columns = new Map<string, string[]>();

  /** `rest` waits until nobody but whoever acts here writes anything. */
  constructor(
    owner: string,
    private readonly api: Api,
    private readonly rest: () => Promise<void> = () => Promise.resolve(),
  ) {
    this.database = knex({ client: 'pg', connection: owner });
  }

  async prepare(): Promise<void> {
    const { database, columns } = this;
    await database.raw('create table failing (what text)');
    await database.raw('grant select on failing to public');
    await database.raw(`create function fail() returns trigger language plpgsql as $$
      begin
        if exists (select from failing where what = tg_argv[0]) then raise exception 'seeded fault of %', tg_argv[0]; end if;
        return null;
      end $$`);
    const rows: { table_name: string; column_name: string }[] = await database('information_schema.columns')
      .join('information_schema.tables', (on) => void on.using(['table_schema', 'table_name']))
      .where({ table_schema: 'public', table_type: 'BASE TABLE' })
      .orderBy(['table_name', 'ordinal_position'])
      .select('table_name', 'column_name');
    for (const { table_name: table, column_name: column } of rows)
      if (!NOT_OF_ACTS.includes(table)) columns.set(table, [...(columns.get(table) ?? []), ...(PASSING.includes(column) ? [] : [column])]);
    // Both fail when the transaction is to be committed: what was written in another one is there then.
    for (const table of columns.keys())
      await database.raw(
        `create constraint trigger seeded after insert or update or delete on ?? deferrable initially deferred for each row execute function fail('data')`,
        [table],
      );
    await database.raw(
      `create constraint trigger seeded after insert on events deferrable initially deferred for each row when (new.person_id is not null or new.kind = 'typed') execute function fail('events')`,
    );
  }

  async close(): Promise<void> {
    await this.database.destroy();
  }

  private async stored(): Promise<Record<string, string>> {
    const all: Record<string, string> = {};
    for (const [table, names] of this.columns) {
      const { rows } = await this.database.raw<{ rows: { sum: string }[] }>(
        `select coalesce(md5(string_agg(t::text, ',' order by t::text)), '') as sum from (select ${names.map(() => '??').join(', ')} from ??) t`,
        [...names, table],
      );
      all[table] = rows[0]!.sum;
    }
    return all;
  }

  private async told(): Promise<number> {
    const events = this.database('events').where((any) => void any.whereNotNull('person_id').orWhere('kind', 'typed'));
    return Number((await events.count<{ count: string }[]>('* as count'))[0]!.count);
  }

  private send({ method, path, body, headers }: ActRequest): Promise<Response> {
    return fetch(`${this.api.address}${path}`, {
      method,
      headers: { ...(headers ?? this.api.headers), 'content-type': 'application/json' },
      ...(method === 'DELETE' ? {} : { body: JSON.stringify(body ?? {}) }),
    });
  }

  /** An act that fails where its event does, and where its data does, and is done with both; gives its answer. */
  async act<T>(route: string, request: ActRequest): Promise<T> {
    this.driven.add(route);
    for (const what of ['events', 'data']) {
      await this.rest();
      const before = [await this.stored(), await this.told()];
      await this.database('failing').insert({ what });
      const response = await this.send(request);
      await this.database('failing').delete();
      const said = await response.text();
      expect([route, what, response.status, said]).toEqual([route, what, 500, said]);
      await this.rest();
      expect([route, what, await this.stored(), await this.told()]).toEqual([route, what, ...before]);
    }
    const before = { data: await this.stored(), events: await this.told() };
    const response = await this.send(request);
    const text = await response.text();
    const words = before.events + (request.words ?? 1);
    expect([route, response.status, text]).toEqual([route, response.ok ? response.status : 200, text]);
    expect([route, await this.told()]).toEqual([route, words]);
    expect([route, await this.stored()]).not.toEqual([route, before.data]);
    return JSON.parse(text) as T;
  }
}
