import { randomUUID } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { Host, HostInput, HostPageView } from '@wanderon/contract';
import {
  takesApexAlias,
  DnsHabits,
  HostKnowledge,
  Name,
  Requirement,
  TsigAlgorithm,
  TsigKey,
  USUAL_HABITS,
  fromBase64,
  plainRequirement,
} from '@wanderon/core';
import { Knex } from 'knex';
import { DATABASE, Database } from '../db/database';
import { isId } from '../db/ids';
import { NotNow, notFound } from '../refusals';
import { Sealer } from '../secrets/sealer';

interface HostRow {
  id: string;
  name: string;
  role: Host['role'];
  nameservers: string[];
  addresses: string[];
  fronts: string[];
  entry: Host['entry'];
  panel: Pick<Host, 'login' | 'where'>;
  alias_target: string | null;
  requires: readonly (Pick<Requirement, 'owner' | 'type' | 'data'> & Partial<Requirement>)[];
  tasks: Host['tasks'];
  holds_early: boolean;
  habits: Partial<DnsHabits>;
  fronting: Host['fronting'];
  forces_https: boolean;
  issuers: string[];
  holding: string[];
  provisional: string;
  form: Host['form'];
  update_address: string | null;
  note: string;
  key_name: string | null;
  key_algorithm: TsigAlgorithm | null;
  key_secret: string | null;
  of_move: string | null;
}

/** What is written of a change of a host: as it was, undefined where it is new, and as it is. */
export type HostChange = (before: Host | undefined, after: Host, transaction: Database) => Promise<void>;

/** What was given of a place that nobody described. */
export type PlaceGiven = Pick<Host, 'name' | 'role' | 'nameservers' | 'addresses' | 'aliasTarget'>;

/** Moves that are listed with a host. */
const USES = 60;

@Injectable()
export class HostStore {
  /** The hosts as they were read last, by the state that the table had then. */
  private known: { readonly state: string; readonly hosts: readonly Host[] } | undefined;

  constructor(
    @Inject(DATABASE) private readonly database: Database,
    private readonly sealer: Sealer,
  ) {}

  /**
   * Part of a query that tells whether any host is another one than before: each committed change gives its row another transaction
   * (`xmin`). Asked with what is read anyway, so that hosts are not read for each look at a move.
   */
  state(database: Database): Knex.Raw<string> {
    return database.raw(`(select count(*) || ' ' || coalesce(sum(xmin::text::bigint), 0) from hosts where of_move is null)`);
  }

  /** Every host, where the table was in this state. */
  async at(state: string, database: Database): Promise<readonly Host[]> {
    if (this.known?.state !== state) this.known = { state, hosts: await this.list(database) };
    return this.known.hosts;
  }

  /** Which names of servers some hosts gave to domains that went there, by host. */
  async namesGiven(hosts: readonly string[]): Promise<ReadonlyMap<string, readonly string[]>> {
    if (hosts.length === 0) return new Map();
    const rows = await this.database('legs')
      .whereIn('new_dns_host', hosts)
      .distinct<{ host: string; name: string }[]>('new_dns_host as host', this.database.raw('jsonb_array_elements_text(new_nameservers) as name'));
    const given = new Map<string, string[]>();
    for (const { host, name } of rows) given.set(host, [...(given.get(host) ?? []), name]);
    return given;
  }

  /** The hosts of the agency; with a move, the places that only this move knows as well. */
  async list(database: Database = this.database, move?: string): Promise<Host[]> {
    const rows = database<HostRow>('hosts').where({ of_move: null });
    return (await (move !== undefined && isId(move) ? rows.orWhere({ of_move: move }) : rows).orderBy(['role', 'name'])).map(toHost);
  }

  /** Places that only one move knows. */
  async places(move: string, database: Database = this.database): Promise<Host[]> {
    return (await database<HostRow>('hosts').where({ of_move: move }).orderBy(['role', 'name'])).map(toHost);
  }

  /** A place of which a move knows what was given for it. */
  async addPlace(move: string, place: PlaceGiven, database: Database): Promise<Host> {
    const { name, role, nameservers, addresses, aliasTarget } = place;
    const none = JSON.stringify([]);
    const [row] = await database('hosts')
      .insert({
        ...{ id: randomUUID(), of_move: move, name, role, alias_target: aliasTarget, note: '' },
        ...{ nameservers: JSON.stringify(nameservers), addresses: JSON.stringify(addresses), requires: none, tasks: none, fronts: none },
      })
      .returning<HostRow[]>('*');
    return toHost(row!);
  }

  /** A place of a move becomes a host of the agency. Throws a NotNow where the name is taken, or it is one already. */
  async keepPlace(id: string, name: string, told: HostChange): Promise<Host> {
    const row = await this.row(id);
    if (!row) throw notFound('host');
    if (row.of_move === null) throw new NotNow(`${row.name} is kept as a host already.`, { kept: 'Nothing was changed.' });
    await this.checkName(undefined, name, row.role);
    return this.database.transaction(async (transaction) => {
      const [saved] = await transaction('hosts').where({ id }).update({ name, of_move: null }).returning<HostRow[]>('*');
      const host = toHost(saved!);
      await told(undefined, host, transaction);
      return host;
    });
  }

  private async checkName(id: string | undefined, name: string, role: Host['role']): Promise<void> {
    const taken = await this.database<HostRow>('hosts').where({ name, role, of_move: null }).first('id');
    if (taken && taken.id !== id) throw new NotNow(`There is a host named ${name} in this role already.`, { field: 'name', kept: 'Nothing was changed.' });
  }

  async get(id: string): Promise<Host> {
    const row = await this.row(id);
    if (!row) throw notFound('host');
    return toHost(row);
  }

  /** The key of a DNS host, opened; it stays on the server. */
  async keyOf(id: string | null): Promise<TsigKey | undefined> {
    const row = id ? await this.row(id) : undefined;
    if (!row?.key_secret || !row.key_name || !row.key_algorithm) return undefined;
    const secret = await this.database<{ id: string; sealed: Buffer }>('secrets').where({ id: row.key_secret }).first();
    return { name: Name.parse(row.key_name), algorithm: row.key_algorithm, secret: this.sealer.open(secret!.sealed, `secrets/${secret!.id}`) };
  }

  /** Throws a NotNow where the name is taken. `told`: what goes on record of it, in the same transaction. */
  async save(id: string | undefined, input: HostInput, told: HostChange): Promise<Host> {
    const existing = id === undefined ? undefined : await this.row(id);
    if (id !== undefined && !existing) throw notFound('host');
    await this.checkName(id, input.name, input.role);
    return this.database.transaction(async (transaction) => {
      let key: Partial<HostRow> = {};
      if (input.key === null) key = { key_name: null, key_algorithm: null, key_secret: null };
      else if (input.key) {
        const secret = randomUUID();
        await transaction('secrets').insert({ id: secret, kind: 'tsig', sealed: this.sealer.seal(fromBase64(input.key.secret), `secrets/${secret}`) });
        key = { key_name: input.key.name, key_algorithm: input.key.algorithm, key_secret: secret };
      }
      const row = {
        name: input.name,
        role: input.role,
        nameservers: JSON.stringify(input.nameservers),
        addresses: JSON.stringify(input.addresses),
        fronts: JSON.stringify(input.fronts ?? []),
        entry: input.entry ? JSON.stringify(input.entry) : null,
        panel: JSON.stringify({ login: input.login ?? existing?.panel.login ?? '', where: input.where ?? existing?.panel.where ?? [] }),
        alias_target: input.aliasTarget,
        requires: JSON.stringify(input.requires.map((need) => ({ ...need, id: need.id || randomUUID() }))),
        tasks: JSON.stringify((input.tasks ?? []).map((task) => ({ ...task, id: task.id || randomUUID() }))),
        holds_early: input.holdsEarly ?? true,
        habits: JSON.stringify(input.habits ?? USUAL_HABITS),
        fronting: input.fronting ?? 'either',
        forces_https: input.forcesHttps ?? false,
        issuers: JSON.stringify(input.issuers ?? []),
        holding: JSON.stringify(input.holding ?? []),
        provisional: input.provisional ?? '',
        form: input.form ? JSON.stringify(input.form) : null,
        update_address: input.updateAddress,
        note: input.note,
        ...key,
      };
      const [saved] = existing
        ? await transaction('hosts').where({ id }).update(row).returning<HostRow[]>('*')
        : await transaction('hosts')
            .insert({ id: randomUUID(), ...row })
            .returning<HostRow[]>('*');
      if (existing?.key_secret && input.key !== undefined) await transaction('secrets').where({ id: existing.key_secret }).delete();
      const host = toHost(saved!);
      await told(existing && toHost(existing), host, transaction);
      return host;
    });
  }

  /** Notes one thing of a host: what `change` makes of it, in the row as it is then. */
  async note(id: string, change: (host: Host) => Partial<Pick<Host, 'entry' | 'login' | 'where'>>, told: HostChange): Promise<Host> {
    if (!isId(id)) throw notFound('host');
    return this.database.transaction(async (transaction) => {
      const row = await transaction<HostRow>('hosts').where({ id }).forUpdate().first();
      if (!row) throw notFound('host');
      const before = toHost(row);
      const { entry, login, where } = { ...before, ...change(before) };
      const [saved] = await transaction('hosts')
        .where({ id })
        .update({ entry: entry ? JSON.stringify(entry) : null, panel: JSON.stringify({ login, where }) })
        .returning<HostRow[]>('*');
      const after = toHost(saved!);
      await told(before, after, transaction);
      return after;
    });
  }

  /** Moves that lead from it or to it, the open ones first; only the latest of them. */
  async uses(id: string): Promise<HostPageView['uses']> {
    const columns = { old_dns_host: 'from', old_web_host: 'from', new_dns_host: 'to', new_web_host: 'to' } as const;
    const rows = await this.database('legs')
      .join('moves', 'moves.id', 'legs.move_id')
      .join('domains', 'domains.id', 'moves.domain_id')
      .where((any) => void Object.keys(columns).forEach((column) => void any.orWhere(`legs.${column}`, id)))
      .orderByRaw(`moves.state <> 'open', moves.created_at desc, legs.position desc`)
      .limit(USES)
      .select<({ id: string; domain: string; state: string } & Record<keyof typeof columns, string | null>)[]>(
        'moves.id',
        { domain: 'domains.name' },
        'moves.state',
        ...Object.keys(columns).map((column) => `legs.${column}`),
      );
    const uses = new Map<string, HostPageView['uses'][number]>();
    for (const row of rows) {
      const as = new Set(Object.entries(columns).flatMap(([column, word]) => (row[column as keyof typeof columns] === id ? [word] : [])));
      // A record that changes in place leaves from its DNS host and stays there.
      const word = as.has('from') && as.has('to') ? 'stays here' : as.has('to') ? 'comes here' : 'leaves';
      if (!uses.has(row.id)) uses.set(row.id, { id: row.id, domain: row.domain, state: row.state, as: word });
    }
    return [...uses.values()];
  }

  private row(id: string): Promise<HostRow | undefined> {
    if (!isId(id)) return Promise.resolve(undefined);
    return this.database<HostRow>('hosts').where({ id }).first();
  }
}

export function knowledgeOf(host: Host): HostKnowledge {
  const { name, nameservers, addresses, aliasTarget, requires, tasks, fronting, forcesHttps, issuers, holding, provisional } = host;
  return {
    name,
    nameservers,
    addresses,
    aliasTarget: aliasTarget ?? undefined,
    requires,
    tasks,
    fronting,
    forcesHttps,
    issuers,
    holding,
    provisional,
    apexAlias: takesApexAlias({ keyed: host.keyName !== null, habits: host.habits }),
  };
}

function toHost(row: HostRow): Host {
  return {
    id: row.id,
    name: row.name,
    role: row.role,
    nameservers: row.nameservers,
    addresses: row.addresses,
    fronts: row.fronts,
    entry: row.entry,
    ...row.panel,
    aliasTarget: row.alias_target,
    // Those from before there was more to know have a name of their own too.
    requires: row.requires.map((need) => ({ fronting: 'either', ...plainRequirement(need) })),
    tasks: row.tasks,
    holdsEarly: row.holds_early,
    habits: habitsOf(row.habits),
    fronting: row.fronting,
    forcesHttps: row.forces_https,
    issuers: row.issuers,
    holding: row.holding,
    provisional: row.provisional,
    form: row.form,
    updateAddress: row.update_address,
    note: row.note,
    keyName: row.key_name,
    ofMove: row.of_move,
  };
}

/** Those from before there was more to know are as most are. */
function habitsOf(known: Partial<DnsHabits>): Host['habits'] {
  const { begins, locks, forwards, warnings, ...others } = { ...USUAL_HABITS, ...known };
  return { ...others, begins: [...begins], locks: [...locks], forwards: [...forwards], warnings: [...warnings] };
}
