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

/** A name that is not wanted where it stands. */
export interface WrongName {
  /** As it was typed, cleaned. */
  readonly typed: string;
  readonly key: string;
  /** It is a wanted name that stands there already. */
  readonly twice: boolean;
  /** Wanted names, without final dot, that stand nowhere and that no other slip explains. */
  readonly missing: readonly string[];
  readonly context: SetContext;
}

export interface Explained {
  readonly code: string;
  readonly text: string;
  /** The name that was meant, without final dot; null where it is only to go. */
  readonly wanted: string | null;
}

/** One slip of people who type nameservers; undefined where it does not explain the name. */
export type NameSlip = (wrong: WrongName) => Explained | undefined;
