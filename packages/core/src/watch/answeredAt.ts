import { PageLook } from '../survey/website';

/** A page that was answered, and by which addresses on the way. */
export interface AnsweredPage {
  readonly page: string;
  readonly addresses: readonly string[];
}

/** Pages that were answered with something to read, and at which addresses; redirects on the way included. */
export function answeredAt(looks: readonly PageLook[]): AnsweredPage[] {
  return looks.flatMap(({ start, problem, hops }) => {
    const end = hops.at(-1);
    return problem === null && end && end.status < 400 ? [{ page: start, addresses: [...new Set(hops.map((hop) => hop.address))] }] : [];
  });
}
