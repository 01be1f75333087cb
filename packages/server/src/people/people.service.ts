import { createHash, randomBytes, randomUUID } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { hash, verify } from '@node-rs/argon2';
import { NewPerson, Person, Role } from '@wanderon/contract';
import { WALL_CLOCK, Clock } from '../clock/clock';
import { Limiter } from '@wanderon/net';
import { DATABASE, Database } from '../db/database';
import { EventStore } from '../events/event.store';
import { NotNow, NotSignedIn, TooManyTries } from '../refusals';
import { Caller } from './allow';
import { SignInLimits } from './signInLimits';

export const SESSION_COOKIE = 'wanderon_session';
const SESSION_SECONDS = 12 * 3600;
/** For so long an address from which somebody signed in is theirs. */
const KNOWN_SECONDS = 30 * 24 * 3600;
/** Passwords that are hashed at a time, and that may wait for it. */
const HASHES = 2;
const HASHES_WAITING = 64;

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
  private readonly hashes = new Limiter(HASHES, HASHES);
  private hashing = 0;

  constructor(
    @Inject(DATABASE) private readonly database: Database,
    @Inject(WALL_CLOCK) private readonly clock: Clock,
    private readonly limits: SignInLimits,
    private readonly events: EventStore,
  ) {}

  /** Gives a session token, or throws: too many tries, or a wrong login or password, which read the same. */
  async signIn(typed: string, password: string, address: string): Promise<string> {
    const now = this.clock.now();
    const login = readable(typed.toLowerCase());
    const person = await this.database<PersonRow>('people').where({ login, disabled: false }).first();
    const known = person !== undefined && (await this.isKnown(person.id, address, now));
    const counted = { login, address, known };
    await this.limits.admit(counted);
    // An unknown login takes as long as a wrong password.
    const right = await this.verified(person?.password_hash ?? (await unknownHash()), password);
    if (!person || !right) {
      await this.limits.failed(counted);
      await this.events.add({ kind: 'sign-in', text: `A sign-in as ${login} from ${address} failed.`, after: { login, address } });
      throw new NotSignedIn('Login or password is wrong.');
    }
    await this.limits.succeeded(counted);
    const token = randomBytes(32).toString('base64url');
    await this.database.transaction(async (transaction) => {
      await transaction('sessions').where('expires_at', '<', now).delete();
      await transaction('sessions').insert({
        token_hash: digest(token),
        person_id: person.id,
        csrf: randomBytes(24).toString('base64url'),
        expires_at: now + SESSION_SECONDS,
      });
      await transaction('sign_in_addresses').insert({ person_id: person.id, address, at: now }).onConflict(['person_id', 'address']).merge(['at']);
      await this.events.add({ person: person.id, kind: 'sign-in', text: `${person.name} signed in from ${address}.`, after: { address } }, transaction);
    });
    return token;
  }

  /** That login has succeeded from there lately. */
  private async isKnown(person: string, address: string, now: number): Promise<boolean> {
    const rows = this.database('sign_in_addresses').where({ person_id: person, address });
    return (await rows.andWhere('at', '>', now - KNOWN_SECONDS).first('at')) !== undefined;
  }

  /** Few at a time, since each takes memory and a processor; where too many wait already, throws a TooManyTries. */
  private async verified(stored: string, password: string): Promise<boolean> {
    if (this.hashing >= HASHES_WAITING) throw new TooManyTries('Too many people sign in at this moment. Try again in a few seconds.');
    this.hashing += 1;
    try {
      return await this.hashes.run('password', undefined, () => verify(stored, password));
    } finally {
      this.hashing -= 1;
    }
  }

  async signOut(token: string | undefined, { id, name }: Pick<Caller, 'id' | 'name'>): Promise<void> {
    if (!token) return;
    await this.database.transaction(async (transaction) => {
      const ended = await transaction('sessions')
        .where({ token_hash: digest(token) })
        .delete();
      if (ended > 0) await this.events.add({ person: id, kind: 'sign-in', text: `${name} signed out.` }, transaction);
    });
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

/** What somebody typed as a login, fit to be looked for and written down: nobody's login has such characters. */
function readable(login: string): string {
  // eslint-disable-next-line no-control-regex
  return login.replace(/[\u0000-\u001f\u007f\ud800-\udfff]/gu, '?').slice(0, 60);
}

let cachedUnknown: Promise<string> | undefined;
function unknownHash(): Promise<string> {
  return (cachedUnknown ??= hash(randomBytes(16).toString('hex')));
}

function digest(token: string): string {
  return createHash('sha256').update(token).digest('hex');
}
