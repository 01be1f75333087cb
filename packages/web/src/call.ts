import { problemSchema } from '@wanderon/contract';
import { isAttended } from './attended';
import { ProblemError } from './problemError';

let csrf = '';

/** What the server takes as proof that a page of its own asks; it comes with who is signed in. */
export function provenBy(token: string): void {
  csrf = token;
}

/** Asks the server; throws a ProblemError where it refuses, or does not answer. */
export async function call<T>(
  method: string,
  path: string,
  body?: unknown,
  { headers, ...more }: { readonly headers?: Readonly<Record<string, string>>; readonly keepalive?: boolean } = {},
): Promise<T> {
  let response: Response;
  try {
    response = await fetch(path, {
      method,
      ...more,
      headers: {
        ...headers,
        // What only asks changes nothing, and is the same whoever's page asks: a browser that has it on the way already gives that.
        ...(method === 'GET' ? {} : { 'x-csrf-token': csrf }),
        ...(isAttended() ? {} : { 'x-unattended': '1' }),
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
      },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
  } catch {
    throw new ProblemError({
      type: 'about:blank',
      title: 'Wanderon does not answer.',
      status: 0,
      detail: 'Check the connection and try again.',
      kept: 'Nothing was changed.',
    });
  }
  const answer: unknown = await response.json().catch(() => null);
  if (response.ok) return answer as T;
  const problem = problemSchema.safeParse(answer);
  throw new ProblemError(
    problem.success ? problem.data : { type: 'about:blank', title: 'Wanderon gave an answer that cannot be read.', status: response.status },
  );
}
