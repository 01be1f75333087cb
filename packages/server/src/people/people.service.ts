import { createHash, randomBytes, randomUUID } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { hash, verify } from '@node-rs/argon2';
import { NewPerson, Person, Role } from '@wanderon/contract';
import { WALL_CLOCK, Clock } from '../clock/clock';
import { DATABASE, Database } from '../db/database';
import { NotNow, NotSignedIn, TooManyTries } from '../refusals';
import { Caller } from './allow';

export const SESSION_COOKIE = 'wanderon_session';
const SESSION_SECONDS = 12 * 3600;
const WINDOW_SECONDS = 15 * 60;
const FAILURES_PER_LOGIN = 10;
const FAILURES_PER_ADDRESS = 50;

interface PersonRow {
  id: string;
  login: string;
  name: string;
  role: Role;
  password_hash: string;
  disabled: boolean;
}

/** Accounts and sessions. Sessions run by the machine's clock. */
@Injectable()
export class PeopleService {
  constructor(
    @Inject(DATABASE) private readonly database: Database,
    @Inject(WALL_CLOCK) private readonly clock: Clock,
  ) {}

  /** Gives a session token, or throws: too many failures, or a wrong login or password, which read the same. */
  async signIn(login: string, password: string, from: string): Promise<string> {
    const now = this.clock.now();
    const subjects = [
      { subject: `login ${login.toLowerCase()}`, most: FAILURES_PER_LOGIN },
      { subject: `address ${from}`, most: FAILURES_PER_ADDRESS },
    ];
    for (const { subject, most } of subjects) {
      const counted = await this.database('sign_in_failures')
        .where({ subject })
        .andWhere('at', '>', now - WINDOW_SECONDS)
        .count<{ count: string }[]>('* as count');
      if (Number(counted[0]!.count) >= most) throw new TooManyTries('Too many failed tries. Wait 15 minutes and try again.');
    }
    const person = await this.database<PersonRow>('people').where({ login: login.toLowerCase(), disabled: false }).first();
    // An unknown login takes as long as a wrong password.
    const stored = person?.password_hash ?? (await unknownHash());
    const right = await verify(stored, password);
    if (!person || !right) {
      await this.database('sign_in_failures').insert(subjects.map(({ subject }) => ({ subject, at: now })));
      throw new NotSignedIn('Login or password is wrong.');
    }
    await this.database('sign_in_failures')
      .where('at', '<', now - WINDOW_SECONDS)
      .delete();
    await this.database('sessions').where('expires_at', '<', now).delete();
    const token = randomBytes(32).toString('base64url');
    await this.database('sessions').insert({
      token_hash: digest(token),
      person_id: person.id,
      csrf: randomBytes(24).toString('base64url'),
      expires_at: now + SESSION_SECONDS,
    });
    return token;
  }

  async signOut(token: string | undefined): Promise<void> {
    if (token)
      await this.database('sessions')
        .where({ token_hash: digest(token) })
        .delete();
  }

  async callerOf(token: string | undefined): Promise<Caller | undefined> {
    if (!token) return undefined;
    return this.database('sessions')
      .join('people', 'people.id', 'sessions.person_id')
      .where({ 'sessions.token_hash': digest(token), 'people.disabled': false })
      .andWhere('sessions.expires_at', '>', this.clock.now())
      .first<Caller | undefined>('people.id', 'people.login', 'people.name', 'people.role', 'sessions.csrf');
  }

  async list(): Promise<Person[]> {
    return this.database('people').select<Person[]>('id', 'login', 'name', 'role', 'disabled').orderBy('login');
  }

  async add(person: NewPerson): Promise<Person> {
    const row = { id: randomUUID(), login: person.login, name: person.name, role: person.role, disabled: false };
    const inserted = await this.database('people')
      .insert({ ...row, password_hash: await hash(person.password) })
      .onConflict('login')
      .ignore()
      .returning('id');
    if (inserted.length === 0) throw new NotNow(`The login ${person.login} is taken.`, { field: 'login', kept: 'Nothing was changed.' });
    return row;
  }

  /** On the very first start: one administrator. Gives the password where it was made up here, to be shown once. */
  async ensureAdministrator(login: string, password: string | undefined): Promise<string | undefined> {
    if (await this.database('people').first('id')) return undefined;
    const chosen = password ?? randomBytes(12).toString('base64url');
    await this.add({ login, name: 'Administrator', role: 'administrator', password: chosen });
    return password ? undefined : chosen;
  }
}

let cachedUnknown: Promise<string> | undefined;
function unknownHash(): Promise<string> {
  return (cachedUnknown ??= hash(randomBytes(16).toString('hex')));
}

function digest(token: string): string {
  return createHash('sha256').update(token).digest('hex');
}
