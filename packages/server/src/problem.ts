import { ArgumentsHost, Catch, ExceptionFilter, HttpException, Logger } from '@nestjs/common';
import { Problem } from '@wanderon/contract';
import { Request, Response } from 'express';
import { ZodValidationException, ZodSerializationException } from 'nestjs-zod';
import { ZodError } from 'zod';
import { isDatabaseAway } from './db/away';
import { sentence } from './engine/context';
import { InvalidInput, NotAllowed, NotFound, NotNow, NotReachable, NotSignedIn, Refusal, TooManyTries, Unsuitable } from './refusals';

/** What each kind of refusal is over HTTP. */
const STATUS: ReadonlyMap<abstract new (...args: never[]) => Refusal, number> = new Map([
  [InvalidInput, 400],
  [NotSignedIn, 401],
  [NotAllowed, 403],
  [NotFound, 404],
  [NotNow, 409],
  [Unsuitable, 422],
  [TooManyTries, 429],
  [NotReachable, 502],
]);

/** Turns everything thrown into application/problem+json (RFC 9457). */
@Catch()
export class ProblemFilter implements ExceptionFilter {
  private readonly log = new Logger('problem');

  catch(error: unknown, host: ArgumentsHost): void {
    const request = host.switchToHttp().getRequest<Request>();
    const response = host.switchToHttp().getResponse<Response>();
    const problem = this.describe(error, `${request.method} ${request.path}`);
    if (response.headersSent) return void response.end();
    response.status(problem.status).type('application/problem+json').send(JSON.stringify(problem));
  }

  private describe(error: unknown, asked: string): Problem {
    if (error instanceof Refusal) return { type: 'about:blank', title: error.title, status: statusOf(error), ...error.more };
    if (error instanceof ZodValidationException) {
      const issue = (error.getZodError() as ZodError).issues[0]!;
      return { type: 'about:blank', title: issue.message, status: 400, field: issue.path.join('.'), kept: 'Nothing was changed.' };
    }
    if (error instanceof HttpException && !(error instanceof ZodSerializationException))
      return { type: 'about:blank', title: error.message, status: error.getStatus() };
    if (error instanceof Error && 'type' in error && error.type === 'entity.too.large')
      return { type: 'about:blank', title: 'This is more than can be taken at once.', status: 413, detail: 'Give it in parts.', kept: 'Nothing was changed.' };
    if (isForSender(error)) return { type: 'about:blank', title: sentence(error.message), status: error.status, kept: 'Nothing was changed.' };
    if (isDatabaseAway(error)) {
      this.log.error(`${asked}: ${(error as Error).message}`);
      return {
        type: 'about:blank',
        title: 'The database does not answer.',
        status: 503,
        detail: 'Try again in a moment.',
        kept: 'What was saved before is kept.',
      };
    }
    this.log.error(error instanceof ZodSerializationException ? error.getZodError() : error, asked);
    return {
      type: 'about:blank',
      title: 'Something went wrong in Wanderon.',
      status: 500,
      detail: 'It was written to the log of the server.',
      kept: 'What was saved before is kept.',
    };
  }
}

/** What a reader of bodies refuses: a charset, an encoding, what is cut short; its words are for whoever sent it. */
function isForSender(error: unknown): error is Error & { readonly status: number } {
  return error instanceof Error && 'expose' in error && error.expose === true && 'status' in error && typeof error.status === 'number' && error.status < 500;
}

function statusOf(refusal: Refusal): number {
  return [...STATUS].find(([kind]) => refusal instanceof kind)![1];
}
