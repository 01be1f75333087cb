/** What goes with a refusal where there is more to say. */
export interface Particulars {
  /** What to do. */
  readonly detail?: string;
  readonly field?: string;
  readonly kept?: string;
  /** The move that is in the way. */
  readonly move?: string;
  /** A domain that is not delegated can be begun as one that was never used. */
  readonly unused?: boolean;
  /** What was given is right, and a code of the second factor is asked for. */
  readonly needsCode?: boolean;
}

/** A refusal for people: one sentence that says what happened. Services throw one of its kinds; what each is over HTTP stands in problem.ts. */
export abstract class Refusal extends Error {
  constructor(
    readonly title: string,
    readonly more: Particulars = {},
  ) {
    super(title);
  }
}

/** What was given cannot be read or taken; the field is named. */
export class InvalidInput extends Refusal {}
/** It is not so that this could be done, as things stand. */
export class NotNow extends Refusal {}
/** There is no such thing. */
export class NotFound extends Refusal {}
/** It is understood, and cannot be the subject of this. */
export class Unsuitable extends Refusal {}
/** Somebody else's server did not answer. */
export class NotReachable extends Refusal {}
/** Nobody is signed in, or not as who they say. */
export class NotSignedIn extends Refusal {}
/** Whoever is signed in may not do this. */
export class NotAllowed extends Refusal {}
/** It was tried too often. */
export class TooManyTries extends Refusal {}

export const notFound = (what: string): NotFound => new NotFound(`There is no such ${what}.`);
