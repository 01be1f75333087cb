import 'reflect-metadata';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { NestFactory } from '@nestjs/core';
import { NestExpressApplication } from '@nestjs/platform-express';
import { DocumentBuilder, SwaggerModule } from '@nestjs/swagger';
import cookieParser from 'cookie-parser';
import helmet from 'helmet';
import { Logger } from 'nestjs-pino';
import { cleanupOpenApiDoc } from 'nestjs-zod';
import { NextFunction, Request, Response, static as serveStatic } from 'express';
import { AppModule } from './app.module';
import { SystemClock } from './clock/clock';
import { LabClockFollower } from './clock/labClock';
import { readConfig } from './config';
import { openDatabase } from './db/database';
import { assertEveryHandlerAllows } from './people/everyHandlerAllows';
import { readBodies } from './people/beforeReading';
import { PeopleService } from './people/people.service';

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
  app.use(
    helmet({
      contentSecurityPolicy: { directives: { 'script-src': ["'self'"], 'style-src': ["'self'", "'unsafe-inline'"], 'upgrade-insecure-requests': null } },
      strictTransportSecurity: config.WANDERON_PUBLIC_ADDRESS.startsWith('https:'),
    }),
  );
  app.use(cookieParser());
  // Kept by the person's own browser only, and asked for anew each time: what did not change is not sent again.
  app.use('/api', (_request: Request, response: Response, next: NextFunction) => {
    response.setHeader('Cache-Control', 'private, no-cache');
    next();
  });
  readBodies(app, app.get(PeopleService));
  assertEveryHandlerAllows(app);
  app.enableShutdownHooks();
  // Made when somebody asks for it: it takes a second, which a start need not wait for.
  let document: unknown;
  const described = (): unknown =>
    (document ??= cleanupOpenApiDoc(
      SwaggerModule.createDocument(app, new DocumentBuilder().setTitle('Wanderon').setVersion('1').addCookieAuth('wanderon_session').build()),
    ));
  const express = app.getHttpAdapter().getInstance();
  express.get('/api/openapi.json', (_request: Request, response: Response) => void response.json(described()));
  const web = join(__dirname, '../../web/dist');
  if (existsSync(web)) {
    // A file is looked for on the disk: not for each question to the API.
    const files = serveStatic(web, { index: false, maxAge: '1h' });
    app.use((request: Request, response: Response, next: NextFunction) => (request.path.startsWith('/api/') ? next() : files(request, response, next)));
    express.get(/^\/(?!api\/).*/, (_request: Request, response: Response) => response.sendFile(join(web, 'index.html')));
  }
  const made = await app.get(PeopleService).ensureAdministrator(config.WANDERON_ADMIN_LOGIN, config.WANDERON_ADMIN_PASSWORD);
  if (made) console.log(`First administrator: login ${config.WANDERON_ADMIN_LOGIN}, password ${made} (shown this once)`);
  await app.listen(config.WANDERON_PORT, config.WANDERON_LISTEN);
  const address = app.getHttpServer().address() as { port: number };
  console.log(`listening ${address.port}`);
}

main().catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
});
