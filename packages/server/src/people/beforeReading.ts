import { NestExpressApplication } from '@nestjs/platform-express';
import { NextFunction, Request, Response, json } from 'express';
import { Config } from '../config';
import { InvalidInput, NotSignedIn } from '../refusals';
import { isActive, isSafe } from './activity';
import { SignedRequest } from './allow';
import { tokenOf } from './cookie';
import { SessionService } from './sessions.service';

/** Who has no account sends a login and a password, or ticks a row of a sheet: no more than this is read. */
const STRANGERS = /^\/api\/(sign-in|sheets\/)/;
const FROM_STRANGERS = 4096;
/** Milliseconds for the headers of a request, and for all of it: a large file on a slow line comes in a minute. */
const HEADERS_IN = 10_000;
const ALL_IN = 60_000;
/** A whole zone file in hand, or a plan that was edited elsewhere, is more than anything else that people send. */
const LARGE = ['in-hand', 'plan'];
const KEPT = 'Nothing was changed.';

/**
 * What comes before a handler: nobody's body is read, let alone inflated, before it is known who sends it, and no text with characters that
 * cannot be kept goes further.
 */
export function readBodies(app: NestExpressApplication, sessions: SessionService, config: Config): void {
  const server = app.getHttpServer();
  server.headersTimeout = HEADERS_IN;
  server.requestTimeout = ALL_IN;
  app.use('/api', (request: SignedRequest, response: Response, next: NextFunction) => {
    if (/%00/i.test(request.originalUrl)) return next(new InvalidInput('The address holds a character that cannot be read.', { kept: KEPT }));
    if (isSafe(request)) return next();
    // What is not read is not waited for either.
    const refuse = (error: Error): void => {
      response.setHeader('Connection', 'close');
      next(error);
    };
    if (STRANGERS.test(request.originalUrl)) return Number(request.get('content-length') ?? 0) > FROM_STRANGERS ? refuse(tooLarge()) : next();
    sessions.callerOf(tokenOf(request, config), isActive(request)).then((caller) => {
      if (!caller) return refuse(new NotSignedIn('Sign in first.', { kept: KEPT }));
      request.caller = caller;
      next();
    }, next);
  });
  for (const path of ['sign-in', 'sheets']) app.use(`/api/${path}`, json({ limit: FROM_STRANGERS, inflate: false }));
  for (const path of LARGE) app.use(`/api/legs/:leg/${path}`, json({ limit: '8mb', inflate: false }));
  app.use(json({ limit: '1mb', inflate: false }));
  app.use('/api', (request: Request, _response: Response, next: NextFunction) => {
    const field = unreadableIn(request.body);
    if (field === undefined) return next();
    next(new InvalidInput('It holds a character that cannot be kept, or is nested too deep.', { ...(field && { field }), kept: KEPT }));
  });
}

/** As the reader of bodies says it. */
function tooLarge(): Error {
  return Object.assign(new Error('request entity too large'), { type: 'entity.too.large' });
}

/** Levels of a body that are read: no form has more than a few. */
const DEEPEST = 20;
/** NUL, which the database cannot hold, and halves of characters. */
// eslint-disable-next-line no-control-regex
const UNREADABLE = /[\u0000\ud800-\udfff]/u;

/** Where in a body a text cannot be kept, as `rows.3.data`; undefined where all of it can. */
export function unreadableIn(body: unknown): string | undefined {
  const open: { readonly value: unknown; readonly path: readonly string[] }[] = [{ value: body, path: [] }];
  for (let one = open.pop(); one !== undefined; one = open.pop()) {
    const { value, path } = one;
    if (typeof value === 'string' ? UNREADABLE.test(value) : path.length > DEEPEST) return path.join('.');
    if (typeof value !== 'object' || value === null) continue;
    for (const [key, inner] of Object.entries(value)) {
      if (UNREADABLE.test(key)) return path.join('.');
      open.push({ value: inner, path: [...path, key] });
    }
  }
  return undefined;
}
