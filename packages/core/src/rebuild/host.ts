import { FrontingWish } from '../hosts/fronting';
import { Requirement } from '../hosts/requirement';
import { HostTask } from '../hosts/task';

/** What the agency knows of a place; names absolute with final dot, addresses as text. */
export interface HostKnowledge {
  readonly name: string;
  readonly nameservers: readonly string[];
  readonly addresses: readonly string[];
  /** Where an alias to this web host leads. */
  readonly aliasTarget: string | undefined;
  /** Records that the web host asks for. */
  readonly requires: readonly Requirement[];
  /** What has to be done there besides, in its order. */
  readonly tasks?: readonly HostTask[];
  /** What it wants of a DNS host that can front the names that lead to it. */
  readonly fronting?: FrontingWish;
  /** It sends every visitor who comes without TLS to HTTPS. */
  readonly forcesHttps?: boolean;
  /** Who makes its certificates, as CAA records name them; empty: not known. */
  readonly issuers?: readonly string[];
  /** Titles of the pages with which it answers for domains that it does not know. */
  readonly holding?: readonly string[];
  /** Where sites stand there before their domains lead to it, as `provisionalOf` reads it; empty: not known, or given to each. */
  readonly provisional?: string;
  /** A web host of which some values were given for this site: they need not be all that it has. */
  readonly isGiven?: boolean;
  /** A DNS host that takes an alias at the apex (`takesApexAlias`). */
  readonly apexAlias?: boolean;
}

/** What the checks of a plan ask of a web host. */
export interface CheckedWeb extends Pick<HostKnowledge, 'name' | 'addresses'> {
  readonly aliasTarget?: string | undefined;
  readonly issuers?: readonly string[] | undefined;
  readonly forcesHttps?: boolean | undefined;
}
