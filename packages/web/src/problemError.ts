import { Problem } from '@wanderon/contract';

/** What the server refused, in its own words. */
export class ProblemError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.title);
  }
}
