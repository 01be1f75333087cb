import { randomBytes } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { NestExpressApplication } from '@nestjs/platform-express';
import { askedFirst } from '@wanderon/contract';
import { NextFunction, Request, Response, static as serveStatic } from 'express';

/** Where the page is told its nonce. */
const PLACE = '<head>';

/**
 * Gives each answer that may be a page a word of its own: styles that the page makes while it runs, as where an open dialog keeps what is
 * behind it from moving, are taken with that word only (Content Security Policy Level 3 §2.3.1). Before the policy is written.
 */
export function giveNonces(app: NestExpressApplication): void {
  app.use((request: Request, response: Response, next: NextFunction) => {
    if (!request.path.startsWith('/api/')) response.locals['nonce'] = randomBytes(16).toString('base64');
    next();
  });
}

/** The source that a policy lets styles come from besides the server itself. */
export function styleNonce(response: unknown): string {
  const { nonce } = (response as Response).locals as { nonce?: string };
  return nonce === undefined ? "'self'" : `'nonce-${nonce}'`;
}

/**
 * Serves the built page and its files, where there are any: each address that is not the API's is a place on the page. Where somebody may be
 * signed in, what the page will ask first is named with it, and `expect` is told of the move that it will ask for.
 */
export function servePages(
  app: NestExpressApplication,
  folder: string,
  isSigned: (request: Request) => boolean,
  expect: (request: Request, move: string) => void,
): void {
  if (!existsSync(folder)) return;
  const page = readFileSync(join(folder, 'index.html'), 'utf8');
  const program = programOf(page);
  // A file is looked for on the disk: not for each question to the API, nor for the page, of which no two are alike.
  const files = serveStatic(folder, { index: false, maxAge: '1h' });
  const isFile = ({ path }: Request): boolean => !path.startsWith('/api/') && path !== '/index.html';
  app.use((request: Request, response: Response, next: NextFunction) => (isFile(request) ? files(request, response, next) : next()));
  (app.getHttpAdapter().getInstance() as { get(path: RegExp, handle: (request: Request, response: Response) => void): void }).get(
    /^\/(?!api\/).*/,
    (request, response) => {
      const [path, search] = request.originalUrl.split('?', 2);
      const { of, move } = askedFirst(path!, search ? `?${search}` : '');
      const first = isSigned(request) ? Object.entries(of) : [];
      // As the page's own program asks for it (RFC 8288; HTML, "preload"); thousands of rows come last.
      const answers = first.map(([what, address]) => `<${address}>; rel=preload; as=fetch; crossorigin${what === 'rest' ? '; fetchpriority=low' : ''}`);
      response.setHeader('Link', [...program, ...answers].join(', '));
      const told = `${PLACE}<meta name="style-nonce" content="${(response.locals as { nonce: string }).nonce}">`;
      response.setHeader('Cache-Control', 'no-store').type('html').send(page.replace(PLACE, told));
      if (move !== undefined) expect(request, move);
    },
  );
}

/** The program and the styles that a page names, before anything else: a browser has six connections, and nothing is drawn without these. */
function programOf(page: string): string[] {
  const scripts = [...page.matchAll(/<script type="module"[^>]* src="([^"]+)"/g)].map(([, address]) => `<${address}>; rel=modulepreload; crossorigin`);
  const styles = [...page.matchAll(/<link rel="stylesheet"[^>]* href="([^"]+)"/g)].map(([, address]) => `<${address}>; rel=preload; as=style; crossorigin`);
  return [...scripts, ...styles];
}
