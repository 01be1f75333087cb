import { createHash } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import { DATABASE, Database } from '../db/database';
import { TooManyTries } from '../refusals';

/** Tries of one login from one address, and of all logins from it, in a quarter of an hour. */
const PER_PAIR = 10;
const PER_ADDRESS = 50;
const WINDOW = 15 * 60;
/** Tries of one login in an hour from all addresses from which it never succeeded: a stranger with many of them locks nobody out. */
const PER_LOGIN = 100;
const HOUR = 3600;
/** Failures in a row that cost nothing; after each one more the next has to wait twice as long, up to the window. */
const FREE = 3;
const DAY = 24 * HOUR;

/** Who tries to sign in, from where, and whether that login has succeeded from there before. */
export interface Try {
  readonly login: string;
  readonly address: string;
  readonly known: boolean;
}

/**
 * How often somebody may try to sign in. A try is counted before the password is looked at, in one statement of the database, so that
 * tries at once, in several processes too, are no more than tries one after the other.
 */
@Injectable()
export class SignInLimits {
  private readonly pair: RateLimiterPostgres;
  private readonly address: RateLimiterPostgres;
  private readonly login: RateLimiterPostgres;
  private readonly streak: RateLimiterPostgres;

  constructor(@Inject(DATABASE) database: Database) {
    const limiter = (keyPrefix: string, points: number, duration: number): RateLimiterPostgres =>
      new RateLimiterPostgres({ storeClient: database, storeType: 'knex', tableName: 'sign_in_limits', tableCreated: true, keyPrefix, points, duration });
    this.pair = limiter('pair', PER_PAIR, WINDOW);
    this.address = limiter('address', PER_ADDRESS, WINDOW);
    this.login = limiter('login', PER_LOGIN, HOUR);
    this.streak = limiter('streak', Number.MAX_SAFE_INTEGER, DAY);
  }

  /** Counts a try; throws a TooManyTries with the time to wait where there were too many. */
  async admit({ login, address, known }: Try): Promise<void> {
    try {
      await this.pair.consume(keyOf(login, address));
      await this.address.consume(keyOf(address));
      if (!known) await this.login.consume(keyOf(login));
    } catch (error) {
      if (!(error instanceof RateLimiterRes)) throw error;
      throw new TooManyTries(`Too many failed tries. Try again in ${waitWords(error.msBeforeNext)}.`, { kept: 'Nobody was signed in.' });
    }
  }

  /** The password was wrong: from the fourth time on the next try has to wait. */
  async failed({ login, address }: Try): Promise<void> {
    const { consumedPoints } = await this.streak.penalty(keyOf(login, address), 1);
    if (consumedPoints > FREE) await this.pair.block(keyOf(login, address), Math.min(WINDOW, 2 ** (consumedPoints - FREE)));
  }

  /** It was right: nothing counts against them any more. */
  async succeeded({ login, address, known }: Try): Promise<void> {
    await this.pair.delete(keyOf(login, address));
    await this.streak.delete(keyOf(login, address));
    await this.address.reward(keyOf(address), 1);
    if (!known) await this.login.reward(keyOf(login), 1);
  }
}

/** Of one length, whatever was typed. */
function keyOf(...parts: readonly string[]): string {
  return createHash('sha256').update(JSON.stringify(parts)).digest('base64url');
}

function waitWords(milliseconds: number): string {
  const seconds = Math.max(1, Math.ceil(milliseconds / 1000));
  return seconds < 90 ? `${seconds} s` : `${Math.ceil(seconds / 60)} min`;
}
