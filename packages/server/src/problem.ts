import { ArgumentsHost, Catch, ExceptionFilter, HttpException, Logger } from '@nestjs/common';
import { Problem } from '@wanderon/contract';
import { Response } from 'express';
import { ZodValidationException, ZodSerializationException } from 'nestjs-zod';
import { ZodError } from 'zod';

/** A refusal for people: one sentence that says what happened, and what to do where that is not plain. */
export class ProblemError extends Error {
  override readonly name = 'ProblemError';
  constructor(
    readonly status: number,
    readonly title: string,
    readonly more: { detail?: string; field?: string; kept?: string; move?: string } = {},
  ) {
    super(title);
  }
}

export const notFound = (what: string): ProblemError => new ProblemError(404, `There is no such ${what}.`);

/** Turns everything thrown into application/problem+json (RFC 9457). */
@Catch()
export class ProblemFilter implements ExceptionFilter {
  private readonly log = new Logger('problem');

  catch(error: unknown, host: ArgumentsHost): void {
    const problem = this.describe(error);
    const response = host.switchToHttp().getResponse<Response>();
    if (response.headersSent) return void response.end();
    response.status(problem.status).type('application/problem+json').send(JSON.stringify(problem));
  }

  private describe(error: unknown): Problem {
    if (error instanceof ProblemError) return { type: 'about:blank', title: error.title, status: error.status, ...error.more };
    if (error instanceof ZodValidationException) {
      const issue = (error.getZodError() as ZodError).issues[0]!;
      return { type: 'about:blank', title: issue.message, status: 400, field: issue.path.join('.'), kept: 'Nothing was changed.' };
    }
    if (error instanceof HttpException && !(error instanceof ZodSerializationException))
      return { type: 'about:blank', title: error.message, status: error.getStatus() };
    if (error instanceof Error && 'type' in error && error.type === 'entity.too.large')
      return { type: 'about:blank', title: 'This is more than can be taken at once.', status: 413, detail: 'Give it in parts.', kept: 'Nothing was changed.' };
    this.log.error(error instanceof ZodSerializationException ? error.getZodError() : error);
    return {
      type: 'about:blank',
      title: 'Something went wrong in Wanderon.',
      status: 500,
      detail: 'It was written to the log of the server.',
      kept: 'What was saved before is kept.',
    };
  }
}
