/** In which manner something was written. */
export type Form = 'zone file' | 'table' | 'fields' | 'list' | 'json' | 'yaml' | 'query' | 'mail headers' | 'page source' | 'names' | 'sentence';

/** `sure`: nothing is odd about it; `ask`: a person or a server has to say; `out`: it is about something else, and left out. */
export type Trust = 'sure' | 'ask' | 'out';

/** One thing that a text gives. */
export interface Find {
  readonly kind: 'record' | 'nameserver' | 'address' | 'name';
  /** Below the domain, `@` for the domain itself; whole with a final dot where it is of another domain. Of an address: empty. */
  readonly owner: string;
  /** Mnemonic; of a name alone: empty. */
  readonly type: string;
  /** In presentation form (RFC 1035 §5.1), whole names with a final dot; empty where the text has no more than name and type. */
  readonly data: string;
  /** Seconds; undefined where none is given. */
  readonly ttl: number | undefined;
  readonly trust: Trust;
  /** What is odd about it, or why it is left out, each in a sentence. */
  readonly questions: readonly string[];
  /** Other ways to read it. */
  readonly others: readonly { readonly owner: string; readonly data: string }[];
  readonly form: Form;
  /** A target of one label in its value, which has to be a name of the domain. */
  readonly target?: string | undefined;
  /** Lines of the text as it was given, from 1. */
  readonly line: number;
  readonly lastLine: number;
}

/** A line of which nothing was made; `problem` where it is known why. */
export interface Unread {
  readonly line: number;
  readonly text: string;
  readonly problem?: string | undefined;
}

export interface TextReading {
  readonly finds: readonly Find[];
  /** Every line that was not understood and is not blank. */
  readonly unread: readonly Unread[];
  /** Lines beyond what is read. */
  readonly leftOut: number;
  /** The serial of a zone file that was read whole, every line of the text. */
  readonly serial: number | undefined;
}

/** What a text is about: a domain where one is known, and whether its lines say what a place has, or what it wants. */
export interface Subject {
  /** The domain in question, with final dot; undefined where a page is read for no domain in particular. */
  readonly zone: string | undefined;
  readonly as: 'old' | 'new';
  /** Domains of clients, without final dot: in a text for no domain in particular each of them stands for the reader's own. */
  readonly own: readonly string[];
}

/** A record as its parts stand in the text, before they are judged. */
export interface RawRecord {
  /** Undefined where the text has none. */
  readonly owner: string | undefined;
  readonly type: string;
  readonly value: string;
  readonly ttl?: string | undefined;
  readonly priority?: string | undefined;
  readonly weight?: string | undefined;
  readonly port?: string | undefined;
  readonly line: number;
  readonly lastLine: number;
  readonly form: Form;
  /** What is odd about how it stands. */
  readonly doubts: readonly string[];
  /** Another way to part the same text. */
  readonly other?: { readonly owner: string | undefined; readonly value: string } | undefined;
  /** Why it is none of what is asked for. */
  readonly out?: string | undefined;
  /** Names in it are relative where no dot ends them (RFC 1035 §5.1), as in zone files. */
  readonly isFile?: boolean;
}
