import { Instant } from '../timetable/instant';

/** What the registry says of a domain (RFC 9083 §5.3). Names without final dot. */
export interface Registration {
  /** The service that said so, as a host name. */
  readonly service: string;
  readonly registrar: string | undefined;
  readonly registered: Instant | undefined;
  readonly expires: Instant | undefined;
  /** Status values as registries give them (RFC 8056), in small letters. */
  readonly statuses: readonly string[];
  readonly nameservers: readonly string[];
  readonly delegationSigned: boolean | undefined;
  /** Key tags of DS records that the registry holds. */
  readonly dsKeyTags: readonly number[];
}

/** What is known of the registration: it was read, the registry has no such domain, or why nothing is known. */
export type RegistrationLook =
  | { readonly kind: 'found'; readonly registration: Registration }
  | { readonly kind: 'absent'; readonly service: string }
  | { readonly kind: 'unknown'; readonly problem: string };
