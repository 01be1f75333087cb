import { NestExpressApplication } from '@nestjs/platform-express';
import { Express, NextFunction, Request, Response, json, raw } from 'express';
import { Config } from '../config';
import { unreadableIn } from '../reading/unreadable';
import { InvalidInput, NotSignedIn } from '../refusals';
import { isActive, isSafe } from './activity';
import { SignedRequest } from './allow';
import { tokenOf } from './cookie';
import { SessionService } from './sessions.service';

/** Who has no account sends a login and a password, or ticks a row of a sheet: no more than this is read. */
const STRANGERS = /^\/api\/(sign-in|begin|sheets\/)/;
const FROM_STRANGERS = 4096;
/** Milliseconds for the headers of a request, and for all of it: a large file on a slow line comes in a minute. */
const HEADERS_IN = 10_000;
const ALL_IN = 60_000;
/** Milliseconds that a connection is kept without a request: longer than proxies keep theirs, who would send the next one into one that was just closed. */
const KEPT_OPEN = 65_000;
/** What may be as large as a zone: a file in hand, a plan that was edited elsewhere, what a panel shows, a list of domains. It is read elsewhere (`Reader`). */
const LARGE: readonly (readonly ['post' | 'put', path: string, limit: string])[] = [
  ['post', '/api/legs/:leg/in-hand', '8mb'],
  ['put', '/api/legs/:leg/plan', '8mb'],
  ['post', '/api/legs/:leg/panel', '1mb'],
  ['post', '/api/sweeps', '1mb'],
];
const KEPT = 'Nothing was changed.';

/**
 * What comes before a handler: nobody's body is read, let alone inflated, before it is known who sends it, and no text with characters that
 * cannot be kept goes further.
 */
export function readBodies(app: NestExpressApplication, sessions: SessionService, config: Config): void {
  const server = app.getHttpServer();
  server.headersTimeout = HEADERS_IN;
  server.requestTimeout = ALL_IN;
  server.keepAliveTimeout = KEPT_OPEN;
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
  for (const path of ['sign-in', 'begin', 'sheets']) app.use(`/api/${path}`, json({ limit: FROM_STRANGERS, inflate: false }));
  const express = app.getHttpAdapter().getInstance() as Express;
  for (const [method, path, limit] of LARGE) express[method](path, inUtf8, raw({ type: 'application/json', limit, inflate: false }));
  app.use(json({ limit: '1mb', inflate: false }));
  app.use('/api', (request: Request, _response: Response, next: NextFunction) => {
    const field = Buffer.isBuffer(request.body) ? undefined : unreadableIn(request.body);
    if (field === undefined) return next();
    next(new InvalidInput('It holds a character that cannot be kept, or is nested too deep.', { ...(field && { field }), kept: KEPT }));
  });
}

/** As the reader of bodies says it. */
function tooLarge(): Error {
  return Object.assign(new Error('request entity too large'), { type: 'entity.too.large' });
}

/** What is not read here is in UTF-8 at least by its own word (RFC 8259 §8.1). */
function inUtf8(request: Request, _response: Response, next: NextFunction): void {
  const charset = /;\s*charset\s*=\s*"?([^\s;"]+)/i.exec(request.get('content-type') ?? '')?.[1] ?? 'utf-8';
  if (/^utf-?8$/i.test(charset)) return next();
  next(Object.assign(new Error(`unsupported charset "${charset.toUpperCase()}"`), { status: 415, expose: true }));
}
