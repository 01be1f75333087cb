import { Progress } from '../live/tellProgress';
import { FrontRange, Name, RRset, TsigKey } from '@wanderon/core';
import { DnsClient, HttpWorld, RdapBootstrap, Walker } from '@wanderon/net';

/** What a survey needs of the walk down from the root. */
export type SurveyWalker = Pick<Walker, 'delegation' | 'addressesOf' | 'recordsOf' | 'givenUp'>;

/** What a survey reaches the world through. */
export interface SurveyWorld {
  readonly client: DnsClient;
  readonly walker: (signal: AbortSignal | undefined) => SurveyWalker;
  /** Names of pages are resolved by the survey itself. */
  readonly http: Omit<HttpWorld, 'resolve'>;
  /** Which service answers for which registry; undefined where none is to be asked. Throws a NetError where nobody can tell. */
  readonly bootstrap: () => Promise<RdapBootstrap | undefined>;
}

/** A DNS host of the agency. */
export interface KnownHost {
  readonly id: string;
  readonly name: string;
  /** Absolute. */
  readonly nameservers: readonly string[];
  /** Of its nameservers, where they were given: two hosts may have servers of one name. */
  readonly addresses?: readonly string[];
  /** Names of servers that it has given to one domain or another, where it gives each its own: others like them are its as well. */
  readonly gives?: readonly string[];
  readonly key: () => Promise<TsigKey | undefined>;
}

/** What a survey is to find out, and what is known beforehand. */
export interface SurveyWish {
  readonly zone: Name;
  readonly hosts: readonly KnownHost[];
  readonly fronts: readonly FrontRange[];
  readonly given: Given;
  /** Names that a move is about: asked for wherever questions have to be put. */
  readonly about?: readonly Name[];
  /** Sets of an earlier survey: each is asked for again where questions have to be put. */
  readonly before?: readonly { readonly name: Name; readonly type: number }[];
  /** Names that stand in other zones of the agency, relative, the commonest first; asked for where questions have to be put. */
  readonly siblings: () => Promise<readonly string[]>;
  /** Host names with a path whose pages are looked at, beside those of the apex and `www`. */
  readonly pages: readonly string[];
  /** One of very many: likely names are not asked whether zones of their own stand there. */
  readonly brief?: boolean;
  readonly signal?: AbortSignal | undefined;
  /** True once its time is nearly over: what was found by then is the survey, which says what was left. */
  readonly isEnough?: (() => boolean) | undefined;
  readonly onProgress?: ((progress: Progress) => void) | undefined;
}

/** What a person has in hand of the zone. */
export interface Given {
  readonly names: readonly Name[];
  readonly sets: readonly RRset[];
  /** Serial of the zone file, where it was one. */
  readonly serial?: number | undefined;
  /** Names, absolute, or addresses of servers that have the zone, whether or not anybody is led to them. */
  readonly servers?: readonly string[];
}
