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

/** Characters from which on an answer is kept, to be read once: smaller ones are read in no time. */
const LARGE = 50_000;
/** Answers that are kept, those that were had last. */
const KEPT = 8;
/** What the server answered last at an address, with its tag (RFC 9110 §8.8.3): where it is so still, thousands of rows are not read again. */
const answers = new Map<string, { readonly tag: string; readonly answer: unknown }>();

function keep(path: string, tag: string, answer: unknown): void {
  answers.delete(path);
  answers.set(path, { tag, answer });
  for (const oldest of answers.keys()) {
    if (answers.size <= KEPT) return;
    answers.delete(oldest);
  }
}

/**
 * Asks the server; throws a ProblemError where it refuses, does not answer to the end, or gives what cannot be read. A large answer that is as
 * it was before is the same object as before.
 */
export async function call<T>(
  method: string,
  path: string,
  body?: unknown,
  { headers, ...more }: { readonly headers?: Readonly<Record<string, string>>; readonly keepalive?: boolean } = {},
): Promise<T> {
  // What an address of the page names may not lead elsewhere at the server.
  if (new URL(path, 'https://wanderon.example').pathname !== path.split('?', 1)[0])
    throw new ProblemError({ type: 'about:blank', title: 'There is nothing at this address.', status: 404 });
  const known = method === 'GET' ? answers.get(path) : undefined;
  let response: Response;
  let text: string;
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
    text = await response.text();
  } catch {
    throw new ProblemError({
      type: 'about:blank',
      title: 'Wanderon does not answer.',
      status: 0,
      // An act may have been done, and only its answer lost.
      ...(method === 'GET'
        ? { detail: 'Check the connection and try again.', kept: 'Nothing was changed.' }
        : { detail: 'Check the connection. Whether it was done is not known: look before you do it again.' }),
    });
  }
  if (known && response.status === NOT_CHANGED) {
    keep(path, known.tag, known.answer);
    return known.answer as T;
  }
  const answer = parsed(text);
  if (response.ok && answer !== undefined) {
    const tag = response.headers.get('etag');
    if (method === 'GET' && tag !== null && text.length >= LARGE) keep(path, tag, answer);
    return answer as T;
  }
  const problem = problemSchema.safeParse(answer);
  throw new ProblemError(
    problem.success ? problem.data : { type: 'about:blank', title: 'Wanderon gave an answer that cannot be read.', status: response.status },
  );
}

/** What a text says as JSON; undefined where it is none. */
function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    // Whoever asked is told.
    return undefined;
  }
}
