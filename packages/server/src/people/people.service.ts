import { randomUUID } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { EditPerson, NewPerson, OwnPassword, Person, Role } from '@wanderon/contract';
import { DATABASE, Database } from '../db/database';
import { isId } from '../db/ids';
import { EventStore } from '../events/event.store';
import { InvalidInput, NotNow, notFound } from '../refusals';
import { Caller } from './allow';
import { Hashing } from './hashing';
import { passwordProblem } from './passwordRule';
import { SecondFactor } from './secondFactor.service';
import { SessionService } from './sessions.service';

const KEPT = 'Nothing was changed.';

interface PersonRow {
  id: string;
  login: string;
  name: string;
  role: Role;
  password_hash: string;
  disabled: boolean;
  must_change: boolean;
  demanded: boolean;
  factor_since: number | null;
  seen_at: number | null;
}

/** Accounts. Every change of one is on record with it, and what makes an account weaker or shuts it ends its sessions. */
@Injectable()
export class PeopleService {
  constructor(
    @Inject(DATABASE) private readonly database: Database,
    private readonly hashing: Hashing,
    private readonly sessions: SessionService,
    private readonly factor: SecondFactor,
    private readonly events: EventStore,
  ) {}

  async list(): Promise<Person[]> {
    const [rows, counts] = [await this.database<PersonRow>('people').orderBy('login'), await this.sessions.counts()];
    return rows.map((row) => toPerson(row, counts.get(row.id) ?? 0));
  }

  /** Names by id. */
  async names(ids: readonly string[], database: Database = this.database): Promise<ReadonlyMap<string, string>> {
    if (ids.length === 0) return new Map();
    const rows = await database<PersonRow>('people')
      .whereIn('id', [...new Set(ids)])
      .select('id', 'name');
    return new Map(rows.map((one) => [one.id, one.name]));
  }

  /** Throws a NotNow where the login is taken, an InvalidInput where the password is not good enough. */
  async add({ login, name, role, password, mustChange = true }: NewPerson, by: Pick<Caller, 'id'> | undefined): Promise<Person> {
    refuseWeak(password, login);
    const row = { id: randomUUID(), login, name, role, must_change: mustChange, password_hash: await this.hashing.hashed(password) };
    return this.database.transaction(async (transaction) => {
      const [made] = await transaction<PersonRow>('people').insert(row).onConflict('login').ignore().returning('*');
      if (!made) throw new NotNow(`The login ${login} is taken.`, { field: 'login', kept: KEPT });
      const person = toPerson(made, 0);
      const text = `${name} (${login}) was given an account with the role ${role}.`;
      await this.events.add({ person: by?.id, kind: 'person', text, after: said(person) }, transaction);
      return person;
    });
  }

  /** The first account, an administrator's. Throws a NotNow where somebody has one already: of two who begin at once one does. */
  async addFirst({ login, name, password }: Pick<NewPerson, 'login' | 'name' | 'password'>): Promise<void> {
    refuseWeak(password, login);
    const row = { id: randomUUID(), login, name, role: 'administrator' as const, must_change: false, password_hash: await this.hashing.hashed(password) };
    await this.database.transaction(async (transaction) => {
      await transaction.raw('select pg_advisory_xact_lock(hashtextextended(?, 2))', ['people']);
      if (await transaction('people').first('id'))
        throw new NotNow('Somebody has an account already.', { detail: 'Sign in, or ask them for one.', kept: KEPT });
      const [made] = await transaction<PersonRow>('people').insert(row).returning('*');
      const text = `${name} (${login}) made the first account, with the role administrator.`;
      await this.events.add({ person: made!.id, kind: 'person', text, after: said(toPerson(made!, 0)) }, transaction);
    });
  }

  async isAnybodyThere(): Promise<boolean> {
    return (await this.database('people').first('id')) !== undefined;
  }

  /** The first one, who changes the password at first use; two processes that start at once make one. */
  async makeAdministrator(login: string, password: string): Promise<void> {
    try {
      await this.add({ login, name: 'Administrator', role: 'administrator', password }, undefined);
    } catch (error) {
      if (!(error instanceof NotNow)) throw error;
    }
  }

  /**
   * Name, role, whether the account is open, whether a second factor is asked for. Another role, a shut account or a new demand ends the
   * sessions. Throws a NotNow where nobody would be left who can look after accounts.
   */
  async edit(id: string, { name, role, disabled, demanded }: EditPerson, by: Caller): Promise<Person> {
    return this.database.transaction(async (transaction) => {
      // One after the other: two administrators who shut each other out at once would leave nobody.
      await transaction.raw('select pg_advisory_xact_lock(hashtextextended(?, 2))', ['people']);
      const before = await this.row(id, transaction);
      const leaves = before.role === 'administrator' && !before.disabled && (role !== 'administrator' || disabled);
      if (leaves) {
        const others = transaction('people').where({ role: 'administrator', disabled: false }).andWhereNot({ id });
        if (!(await others.first('id'))) throw new NotNow('This is the last administrator.', { detail: 'Give somebody else that role first.', kept: KEPT });
      }
      const [after] = await transaction<PersonRow>('people').where({ id }).update({ name, role, disabled, demanded }).returning('*');
      const [was, is] = [toPerson(before, 0), toPerson(after!, 0)];
      const changed = changes(was, is);
      if (changed.length > 0)
        await this.events.add(
          { person: by.id, kind: 'person', text: `${is.name} (${is.login}): ${changed.join(', ')}.`, before: said(was), after: said(is) },
          transaction,
        );
      const ends = role !== before.role || disabled || (demanded && before.factor_since === null);
      if (ends) await this.sessions.endAll(id, id === by.id && !disabled ? by.session : undefined, transaction);
      return is;
    });
  }

  /** A new password from an administrator, to be changed at first use; every session of the person ends. */
  async givePassword(id: string, password: string, by: Caller): Promise<void> {
    const { login, name } = await this.row(id, this.database);
    refuseWeak(password, login);
    const password_hash = await this.hashing.hashed(password);
    await this.database.transaction(async (transaction) => {
      await transaction<PersonRow>('people').where({ id }).update({ password_hash, must_change: true });
      await this.sessions.endAll(id, undefined, transaction);
      await this.events.add({ person: by.id, kind: 'person', text: `${name} (${login}) was given a new password.` }, transaction);
    });
  }

  /** A person's own new password; every other session of theirs ends. Throws an InvalidInput that names the field. */
  async changeOwnPassword({ current, password }: OwnPassword, me: Caller): Promise<void> {
    await this.checkPassword(me, current, 'current');
    if (password === current) throw new InvalidInput('This is the password that you have now.', { field: 'password', kept: KEPT });
    refuseWeak(password, me.login);
    const password_hash = await this.hashing.hashed(password);
    await this.database.transaction(async (transaction) => {
      await transaction<PersonRow>('people').where({ id: me.id }).update({ password_hash, must_change: false });
      await this.sessions.endAll(me.id, me.session, transaction);
      await this.events.add({ person: me.id, kind: 'person', text: `${me.name} changed their password.` }, transaction);
    });
  }

  /** Throws an InvalidInput where it is not the password of whoever asks. */
  async checkPassword(me: Pick<Caller, 'id'>, password: string, field: string): Promise<void> {
    const { password_hash } = await this.row(me.id, this.database);
    if (!(await this.hashing.verified(password_hash, password))) throw new InvalidInput('This is not your password.', { field, kept: KEPT });
  }

  /** Ends every session of a person; gives how many. */
  async signOutEverywhere(id: string, by: Caller): Promise<number> {
    const { name, login } = await this.row(id, this.database);
    return this.database.transaction(async (transaction) => {
      const ended = await this.sessions.endAll(id, undefined, transaction);
      await this.events.add({ person: by.id, kind: 'person', text: `${name} (${login}) was signed out everywhere.` }, transaction);
      return ended;
    });
  }

  /** Ends one session of one's own. */
  async endOwnSession(id: string, me: Caller): Promise<void> {
    await this.database.transaction(async (transaction) => {
      await this.sessions.end(me.id, id, transaction);
      await this.events.add({ person: me.id, kind: 'sign-in', text: `${me.name} ended a session.` }, transaction);
    });
  }

  /** The second factor counts from here on; gives the recovery codes. */
  async confirmFactor(code: string, me: Caller): Promise<string[]> {
    return this.database.transaction(async (transaction) => {
      const codes = await this.factor.confirm(me.id, code, transaction);
      await this.sessions.endAll(me.id, me.session, transaction);
      await this.events.add({ person: me.id, kind: 'person', text: `${me.name} set up a second factor.` }, transaction);
      return codes;
    });
  }

  /** Other recovery codes for oneself; the former ones open nothing any more. */
  async renewRecovery(me: Caller): Promise<string[]> {
    return this.database.transaction(async (transaction) => {
      const codes = await this.factor.renew(me.id, transaction);
      await this.events.add({ person: me.id, kind: 'person', text: `${me.name} made new recovery codes.` }, transaction);
      return codes;
    });
  }

  /** One's own, or where the app and its codes are lost, an administrator's act; every other session ends. */
  async removeFactor(id: string, by: Caller): Promise<void> {
    const { name, login } = await this.row(id, this.database);
    await this.database.transaction(async (transaction) => {
      await this.factor.remove(id, transaction);
      await this.sessions.endAll(id, id === by.id ? by.session : undefined, transaction);
      await this.events.add({ person: by.id, kind: 'person', text: `The second factor of ${name} (${login}) was taken off.` }, transaction);
    });
  }

  private async row(id: string, database: Database): Promise<PersonRow> {
    const row = isId(id) ? await database<PersonRow>('people').where({ id }).first() : undefined;
    if (!row) throw notFound('person');
    return row;
  }
}

function refuseWeak(password: string, login: string): void {
  const problem = passwordProblem(password, login);
  if (problem) throw new InvalidInput(problem, { field: 'password', detail: 'Several words that have nothing to do with each other are good.', kept: KEPT });
}

function toPerson(row: PersonRow, sessions: number): Person {
  const { id, login, name, role, disabled, demanded, must_change: mustChange, seen_at: lastSeen, factor_since } = row;
  return { id, login, name, role, disabled, demanded, mustChange, lastSeen, factor: factor_since !== null, sessions };
}

/** What of an account is on record. */
function said({ id, login, name, role, disabled, demanded, factor }: Person): Omit<Person, 'lastSeen' | 'sessions' | 'mustChange'> {
  return { id, login, name, role, disabled, demanded, factor };
}

function changes(was: Person, is: Person): string[] {
  return [
    ...(was.name === is.name ? [] : [`called ${was.name} before`]),
    ...(was.role === is.role ? [] : [`role ${is.role}, before ${was.role}`]),
    ...(was.disabled === is.disabled ? [] : [is.disabled ? 'the account was shut' : 'the account was opened again']),
    ...(was.demanded === is.demanded ? [] : [is.demanded ? 'a second factor is asked for' : 'a second factor is not asked for any more']),
  ];
}
