/** One thing that the new place gave for a move, as it was read out of a text or typed. */
export interface GivenItem {
  readonly kind: 'nameserver' | 'address' | 'record';
  /** Below the domain, `@` for the domain itself; whole with a final dot where it is of another domain. Of an address alone: empty. */
  readonly owner: string;
  readonly type: string;
  /** In presentation form, names whole with a final dot. */
  readonly data: string;
  /** What is odd about how it stands in the text, each in a sentence. */
  readonly doubts: readonly string[];
  /** What a person said of it: taken or left; undefined where nobody said anything. */
  readonly taken?: boolean | undefined;
}

/** What a given thing is for. `none`: it changes nothing here. */
export type GivenUse = 'nameserver' | 'website' | 'record' | 'none';

/** A given thing with what is made of it. */
export interface JudgedItem extends GivenItem {
  readonly use: GivenUse;
  /** What it is taken for, in words: `new nameserver`, `the website's address`. */
  readonly words: string;
  /** What a person has to say before it is taken; undefined where nothing is odd. */
  readonly question: string | undefined;
  readonly isTaken: boolean;
}

/** Two that say the same are one. */
export function givenKey({ kind, owner, type, data }: Pick<GivenItem, 'kind' | 'owner' | 'type' | 'data'>): string {
  return `${kind}/${owner.toLowerCase()}/${type}/${type === 'TXT' ? data : data.toLowerCase()}`;
}
