import { NestExpressApplication } from '@nestjs/platform-express';
import { Request, RequestHandler, Response } from 'express';
import { Config } from '../config';
import { SessionService } from './sessions.service';
import { strangersWait } from './strangersWait';

const config = { WANDERON_PUBLIC_ADDRESS: 'http://127.0.0.1' } as Config;

/** What is called with each request, as express would. */
function handler(): (who: string, served: (error?: unknown) => void) => void {
  let handle: RequestHandler | undefined;
  const app = { use: (one: RequestHandler) => (handle = one) } as unknown as NestExpressApplication;
  const sessions = { isMet: (token: string | undefined) => token === 'known' } as unknown as SessionService;
  strangersWait(app, sessions, config);
  return (who, served) => void handle!({ cookies: { wanderon_session: who } } as unknown as Request, {} as Response, served);
}
const round = (): Promise<void> => new Promise((resolve) => setImmediate(resolve));

describe('who is not signed in', () => {
  it('waits, one served in a round, and whoever is goes on at once', async () => {
    const ask = handler();
    const served: string[] = [];
    for (const who of ['a', 'b', 'c']) ask(who, () => served.push(who));
    ask('known', () => served.push('known'));
    expect(served).toEqual(['known']);
    for (const rounds of [2, 3, 4]) {
      await round();
      expect(served).toHaveLength(rounds);
      ask('known', () => undefined);
    }
    expect(served).toEqual(['known', 'a', 'b', 'c']);
    // It begins again with the next one.
    ask('d', () => served.push('d'));
    await round();
    expect(served.at(-1)).toBe('d');
  });

  it('is refused beside very many who wait already, in a sentence, and served later', async () => {
    const ask = handler();
    let [done, refused] = [0, 0];
    for (let index = 0; index < 2100; index++) ask('x', (error) => (error ? refused++ : done++));
    expect([done, refused]).toEqual([0, 100]);
    while (done < 2000) await round();
    expect([done, refused]).toEqual([2000, 100]);
  });
});
