import 'reflect-metadata';
import { randomBytes } from 'node:crypto';
import { join } from 'node:path';
import { NestFactory } from '@nestjs/core';
import { NestExpressApplication } from '@nestjs/platform-express';
import { DocumentBuilder, SwaggerModule } from '@nestjs/swagger';
import cookieParser from 'cookie-parser';
import helmet from 'helmet';
import { Logger } from 'nestjs-pino';
import { cleanupOpenApiDoc } from 'nestjs-zod';
import { NextFunction, Request, Response } from 'express';
import { AppModule } from './app.module';
import { SystemClock } from './clock/clock';
import { LabClockFollower } from './clock/labClock';
import { Config, readConfig } from './config';
import { openDatabase } from './db/database';
import { assertEveryHandlerAllows } from './people/everyHandlerAllows';
import { readBodies } from './people/beforeReading';
import { tokenOf } from './people/cookie';
import { PeopleService } from './people/people.service';
import { SessionService } from './people/sessions.service';
import { strangersWait } from './people/strangersWait';
import { LoadedMoves } from './moves/loadedMoves';
import { giveNonces, servePages, styleNonce } from './webPages';

/** Starts the server; prints `listening PORT` once it takes requests. */
async function main(): Promise<void> {
  const config = readConfig(process.env);
  const database = await openDatabase(config.WANDERON_DATABASE);
  const clock = config.WANDERON_LAB ? await LabClockFollower.open(config.WANDERON_LAB) : new SystemClock();
  const app = await NestFactory.create<NestExpressApplication>(AppModule.with(config, database, clock), {
    bufferLogs: true,
    bodyParser: false,
    // Pages hold a stream open for news: they come back by themselves, and a server that stops does not wait for them.
    forceCloseConnections: true,
  });
  app.useLogger(app.get(Logger));
  app.disable('x-powered-by');
  if (config.WANDERON_TRUSTED_PROXIES.length > 0) app.set('trust proxy', config.WANDERON_TRUSTED_PROXIES);
  app.use(cookieParser());
  strangersWait(app, app.get(SessionService), config);
  giveNonces(app);
  app.use(
    helmet({
      contentSecurityPolicy: {
        directives: { 'script-src': ["'self'"], 'style-src': ["'self'", (_request, response) => styleNonce(response)], 'upgrade-insecure-requests': null },
      },
      strictTransportSecurity: config.WANDERON_PUBLIC_ADDRESS.startsWith('https:'),
    }),
  );
  // Kept by the person's own browser only, and asked for anew each time: what did not change is not sent again.
  app.use('/api', (_request: Request, response: Response, next: NextFunction) => {
    response.setHeader('Cache-Control', 'private, no-cache');
    next();
  });
  readBodies(app, app.get(SessionService), config);
  assertEveryHandlerAllows(app);
  app.enableShutdownHooks();
  // Made when somebody asks for it: it takes a second, which a start need not wait for.
  let document: unknown;
  const described = (): unknown =>
    (document ??= cleanupOpenApiDoc(
      SwaggerModule.createDocument(app, new DocumentBuilder().setTitle('Wanderon').setVersion('1').addCookieAuth('wanderon_session').build()),
    ));
  const express = app.getHttpAdapter().getInstance();
  const sessions = app.get(SessionService);
  express.get('/api/openapi.json', (request: Request, response: Response, next: NextFunction) => {
    sessions.callerOf(tokenOf(request, config), true).then((caller) => {
      if (caller) response.json(described());
      else
        response
          .status(401)
          .type('application/problem+json')
          .send(JSON.stringify({ type: 'about:blank', title: 'Sign in first.', status: 401 }));
    }, next);
  });
  const moves = app.get(LoadedMoves);
  servePages(
    app,
    join(__dirname, '../../web/dist'),
    (request) => tokenOf(request, config) !== undefined,
    (request, move) => sessions.isMet(tokenOf(request, config)) && moves.expect(move),
  );
  await firstAdministrator(app.get(PeopleService), config);
  await app.listen(config.WANDERON_PORT, config.WANDERON_LISTEN);
  const address = app.getHttpServer().address() as { port: number };
  console.log(`listening ${address.port}`);
}

/**
 * On the very first start there has to be somebody. A password that is made up is shown to whoever started it at a terminal, and
 * written to no log; either way it is changed at first use. Throws an Error where there is nobody to show it to.
 */
async function firstAdministrator(people: PeopleService, config: Config): Promise<void> {
  if (await people.isAnybodyThere()) return;
  const { WANDERON_ADMIN_LOGIN: login, WANDERON_ADMIN_PASSWORD: given, WANDERON_FIRST_LINK: link } = config;
  if (link !== undefined) {
    console.log(`Nobody has an account yet. Open this once to make the first:\n\n  ${config.WANDERON_PUBLIC_ADDRESS.replace(/\/$/, '')}/begin/${link}\n`);
    return;
  }
  if (given === undefined && !process.stdout.isTTY)
    throw new Error('There is nobody with an account yet: give WANDERON_ADMIN_PASSWORD for the first administrator, who changes it at first use.');
  const password = given ?? randomBytes(12).toString('base64url');
  await people.makeAdministrator(login, password);
  if (given === undefined) console.log(`First administrator: login ${login}, password ${password} (shown this once, and changed at first use)`);
}

main().catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
});
