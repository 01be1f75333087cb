import { Injectable } from '@nestjs/common';
import { hash, verify } from '@node-rs/argon2';
import { randomBytes } from 'node:crypto';
import { Limiter } from '@wanderon/net';
import { TooManyTries } from '../refusals';

/** Passwords that are hashed at a time, and that may wait for it. */
const AT_A_TIME = 2;
const WAITING = 64;

/** Hashes of passwords, few at a time, since each takes memory and a processor. Where too many wait already, throws a TooManyTries. */
@Injectable()
export class Hashing {
  private readonly limiter = new Limiter(AT_A_TIME, AT_A_TIME);
  private waiting = 0;
  private unknown: Promise<string> | undefined;

  async hashed(password: string): Promise<string> {
    return this.inTurn(() => hash(password));
  }

  /** Without a stored hash, as for a login that there is not, it takes as long and is wrong. */
  async verified(stored: string | undefined, password: string): Promise<boolean> {
    this.unknown ??= hash(randomBytes(16).toString('hex'));
    const against = stored ?? (await this.unknown);
    return this.inTurn(async () => (await verify(against, password)) && stored !== undefined);
  }

  private async inTurn<T>(work: () => Promise<T>): Promise<T> {
    if (this.waiting >= WAITING) throw new TooManyTries('Too many people sign in at this moment. Try again in a few seconds.');
    this.waiting += 1;
    try {
      return await this.limiter.run('password', undefined, work);
    } finally {
      this.waiting -= 1;
    }
  }
}
