import { ProblemError } from '../api';

/** What the server says of one field of a form; undefined where it says nothing of that field. */
export function problemAt(error: Error | null, field: string): string | undefined {
  const problem = error instanceof ProblemError ? error.problem : undefined;
  return problem?.field === field ? [problem.title, problem.detail].filter(Boolean).join(' ') : undefined;
}
