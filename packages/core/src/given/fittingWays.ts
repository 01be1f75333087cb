import { WayId } from '../move/way';

/** What is known of the new place when the ways are chosen between. */
export interface KnownPlaces {
  /** New nameservers were given, or a DNS host was chosen. */
  readonly hasDns: boolean;
  /** They are the ones that the domain has already. */
  readonly isSameDns: boolean;
  /** An address or an alias was given, or a web host was chosen. */
  readonly hasWeb: boolean;
  readonly isFirstUse: boolean;
  /** The move is about single names. */
  readonly isNames: boolean;
}

export interface FittingWays {
  /** Those that fit what was given, the likeliest first; two at most. */
  readonly fit: readonly WayId[];
  /** What has to be known before a way can be taken; only of ways to which something lacks. */
  readonly missing: Readonly<Partial<Record<WayId, string>>>;
}

const SERVERS = 'the nameservers of the new DNS host';
const WEB = 'an address or an alias of the new web host';

/**
 * Which ways fit what was given: new nameservers change the nameservers, an address or alias alone changes records where they are, and both
 * can also be done one after the other. The nameservers that the domain has already mean another account, or no change of them.
 */
export function fittingWays({ hasDns, isSameDns, hasWeb, isFirstUse, isNames }: KnownPlaces): FittingWays {
  const isNew = hasDns && !isSameDns;
  const missing: Partial<Record<WayId, string>> = {
    ...(!isNew && { nameservers: SERVERS }),
    ...(!hasWeb && { repoint: WEB }),
    ...((!isNew || !hasWeb) && { 'nameservers first': lacking(isNew, hasWeb), 'website first': lacking(isNew, hasWeb) }),
  };
  if (isFirstUse) return { fit: ['nameservers'], missing };
  if (isNames) return { fit: ['repoint'], missing };
  if (isNew) return { fit: hasWeb ? ['nameservers', 'website first'] : ['nameservers'], missing };
  if (isSameDns) return { fit: hasWeb ? ['repoint', 'another account'] : ['another account'], missing };
  return { fit: hasWeb ? ['repoint'] : ['nameservers', 'repoint'], missing };
}

function lacking(hasServers: boolean, hasWeb: boolean): string {
  return [...(hasServers ? [] : [SERVERS]), ...(hasWeb ? [] : [WEB])].join(', and ');
}
