/** A set that the agency knows: of another DNS host or product, or given for another domain. */
export interface KnownSet {
  /** In words, such as `Oldquay DNS` or `choir.example`. */
  readonly of: string;
  readonly nameservers: readonly string[];
}

/** What a nameserver set is held against. Names absolute. */
export interface SetContext {
  readonly zone: string;
  readonly wanted: readonly string[];
  readonly old: readonly string[];
  readonly others: readonly KnownSet[];
}

/** A name that is not wanted where it stands, held against one that is and stands nowhere. Both without final dot. */
export interface WrongName {
  /** As it was typed, cleaned. */
  readonly typed: string;
  /** As it is to be typed. */
  readonly wanted: string;
  readonly context: SetContext;
}

export interface Explained {
  readonly code: string;
  readonly text: string;
  /** How little likely it is: among explanations of a whole set, the one that costs least in all is told. */
  readonly cost: number;
}

/** One slip of people who type nameservers: a name that was meant for another; undefined where it does not explain the name. */
export type NameSlip = (wrong: WrongName) => Explained | undefined;

/** A name that stands there for none that was meant: it is only to go. `isWanted`: it is one of those that are wanted, once too often. */
export type SurplusSlip = (surplus: { readonly typed: string; readonly isWanted: boolean; readonly context: SetContext }) => Explained | undefined;
