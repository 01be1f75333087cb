import { createHash, timingSafeEqual } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { FirstPerson as Input } from '@wanderon/contract';
import { CONFIG, Config } from '../config';
import { NotAllowed } from '../refusals';
import { PeopleService } from './people.service';

/** The first account, for whoever started the server and has the link that was printed there. */
@Injectable()
export class FirstPerson {
  constructor(
    private readonly people: PeopleService,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  /** Throws a NotAllowed for another link, a NotNow where somebody has an account already, an InvalidInput for a weak password. */
  async begin({ secret, ...person }: Input): Promise<void> {
    const expected = this.config.WANDERON_FIRST_LINK;
    // Before any hashing: a stranger without the link costs nothing.
    if (expected === undefined || !sameSecret(secret, expected))
      throw new NotAllowed('This link does not begin anything here.', {
        detail: 'It is good for one start of the server. Start it anew for another one; the terminal shows it.',
        kept: 'Nothing was changed.',
      });
    await this.people.addFirst(person);
  }
}

function sameSecret(given: string, expected: string): boolean {
  const digest = (text: string): Buffer => createHash('sha256').update(text).digest();
  return timingSafeEqual(digest(given), digest(expected));
}
