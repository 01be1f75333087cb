import { problemSchema } from '@wanderon/contract';
import { isAttended } from './attended';
import { ProblemError } from './problemError';

/** RFC 9110 §15.4.5. */
const NOT_CHANGED = 304;

let csrf = '';

/** What the server takes as proof that a page of its own asks; it comes with who is signed in. */
export function provenBy(token: string): void {
  csrf = token;
}

/** Answers that are kept, those that were had last. */
const KEPT = 40;
/** What the server answered last at an address, with its tag (RFC 9110 §8.8.3): where it is so still, thousands of rows are not read again. */
const answers = new Map<string, { readonly tag: string; readonly answer: unknown }>();

function keep(path: string, tag: string | null, answer: unknown): void {
  answers.delete(path);
  if (tag !== null) answers.set(path, { tag, answer });
  for (const oldest of answers.keys()) {
    if (answers.size <= KEPT) return;
    answers.delete(oldest);
  }
}

/**
 * Asks the server; throws a ProblemError where it refuses, or does not answer. What it says that is as it was before is the same object as
 * before.
 */
export async function call<T>(
  method: string,
  path: string,
  body?: unknown,
  { headers, ...more }: { readonly headers?: Readonly<Record<string, string>>; readonly keepalive?: boolean } = {},
): Promise<T> {
  const known = method === 'GET' ? answers.get(path) : undefined;
  let response: Response;
  try {
    response = await fetch(path, {
      method,
      ...more,
      headers: {
        ...headers,
        // What only asks changes nothing, and is the same whoever's page asks: a browser that has it on the way already gives that.
        ...(method === 'GET' ? {} : { 'x-csrf-token': csrf }),
        ...(known ? { 'if-none-match': known.tag } : {}),
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
  if (known && response.status === NOT_CHANGED) {
    keep(path, known.tag, known.answer);
    return known.answer as T;
  }
  const answer: unknown = await response.json().catch(() => null);
  if (response.ok) {
    if (method === 'GET') keep(path, response.headers.get('etag'), answer);
    return answer as T;
  }
  const problem = problemSchema.safeParse(answer);
  throw new ProblemError(
    problem.success ? problem.data : { type: 'about:blank', title: 'Wanderon gave an answer that cannot be read.', status: response.status },
  );
}
