import { Inject, Injectable } from '@nestjs/common';
import { SignIn } from '@wanderon/contract';
import { Clock, WALL_CLOCK } from '../clock/clock';
import { DATABASE, Database } from '../db/database';
import { EventStore } from '../events/event.store';
import { NotSignedIn } from '../refusals';
import { Caller } from './allow';
import { Hashing } from './hashing';
import { SecondFactor } from './secondFactor.service';
import { NewSession, SessionService } from './sessions.service';
import { SignInLimits } from './signInLimits';

/** For so long an address from which somebody signed in is theirs. */
const KNOWN_SECONDS = 30 * 24 * 3600;

interface PersonRow {
  id: string;
  login: string;
  disabled: boolean;
  name: string;
  password_hash: string;
  factor_since: number | null;
}

/** How sessions begin and end. */
@Injectable()
export class SignInService {
  constructor(
    @Inject(DATABASE) private readonly database: Database,
    @Inject(WALL_CLOCK) private readonly clock: Clock,
    private readonly limits: SignInLimits,
    private readonly hashing: Hashing,
    private readonly factor: SecondFactor,
    private readonly sessions: SessionService,
    private readonly events: EventStore,
  ) {}

  /**
   * Gives a session token, or throws: too many tries; a wrong login or password, which read the same; or a NotSignedIn that asks for a
   * code, where the account has a second factor and what was given is right so far.
   */
  async signIn({ login: typed, password, code }: SignIn, where: NewSession): Promise<string> {
    const now = this.clock.now();
    const { address } = where;
    const login = readable(typed.toLowerCase());
    const person = await this.database<PersonRow>('people').where({ login, disabled: false }).first('id', 'name', 'password_hash', 'factor_since');
    const known = person !== undefined && (await this.isKnown(person.id, address, now));
    const counted = { login, address, known };
    await this.limits.admit(counted);
    // An unknown login takes as long as a wrong password.
    const right = await this.hashing.verified(person?.password_hash, password);
    if (!person || !right) {
      await this.limits.failed(counted);
      await this.events.add({ kind: 'sign-in', text: `A sign-in as ${login} from ${address} failed.`, after: { login, address } });
      throw new NotSignedIn('Login or password is wrong.');
    }
    if (person.factor_since !== null) {
      if (code === undefined) throw new NotSignedIn('Type the code of your second factor.', { field: 'code', needsCode: true });
      if (!(await this.factor.takes(person.id, code))) {
        await this.limits.failed(counted);
        await this.events.add({ person: person.id, kind: 'sign-in', text: `A code of ${person.name} from ${address} was wrong.`, after: { address } });
        throw new NotSignedIn('The code is not right.', {
          field: 'code',
          detail: 'Take the one that the app shows now; each counts once. A recovery code opens the account too.',
          needsCode: true,
        });
      }
    }
    await this.limits.succeeded(counted);
    return this.database.transaction(async (transaction) => {
      const token = await this.sessions.begin(person.id, where, transaction);
      await transaction('sign_in_addresses').insert({ person_id: person.id, address, at: now }).onConflict(['person_id', 'address']).merge(['at']);
      await this.events.add({ person: person.id, kind: 'sign-in', text: `${person.name} signed in from ${address}.`, after: { address } }, transaction);
      return token;
    });
  }

  async signOut({ id, name, session }: Pick<Caller, 'id' | 'name' | 'session'>): Promise<void> {
    await this.database.transaction(async (transaction) => {
      await this.sessions.end(id, session, transaction);
      await this.events.add({ person: id, kind: 'sign-in', text: `${name} signed out.` }, transaction);
    });
  }

  /** That login has succeeded from there lately. */
  private async isKnown(person: string, address: string, now: number): Promise<boolean> {
    const rows = this.database('sign_in_addresses').where({ person_id: person, address });
    return (await rows.andWhere('at', '>', now - KNOWN_SECONDS).first('at')) !== undefined;
  }
}

/** What somebody typed as a login, fit to be looked for and written down: nobody's login has such characters. */
function readable(login: string): string {
  // oxlint-disable-next-line no-control-regex
  return login.replace(/[\u0000-\u001f\u007f\ud800-\udfff]/gu, '?').slice(0, 60);
}
