import { NestExpressApplication } from '@nestjs/platform-express';
import { NextFunction, Request, Response } from 'express';
import { Config } from '../config';
import { TooManyTries } from '../refusals';
import { tokenOf } from './cookie';
import { SessionService } from './sessions.service';

/** Requests of strangers that wait at a time; what comes beside them is refused. */
const MOST = 2000;

/**
 * Whoever is signed in is served at once; others one after the other, one in a round of the event loop. However many come together, a
 * signed-in person waits for one of them and not for all. A session is known from its first request on, which waits as a stranger's does.
 */
export function strangersWait(app: NestExpressApplication, sessions: SessionService, config: Config): void {
  const waiting: NextFunction[] = [];
  let serving = false;
  const round = (): void => {
    const next = waiting.shift();
    serving = next !== undefined;
    if (!next) return;
    next();
    setImmediate(round);
  };
  app.use((request: Request, _response: Response, next: NextFunction) => {
    if (sessions.isMet(tokenOf(request, config))) return next();
    if (waiting.length >= MOST) return next(new TooManyTries('Very many ask at once.', { detail: 'Try again in a minute.' }));
    waiting.push(next);
    if (!serving) {
      serving = true;
      setImmediate(round);
    }
  });
}
