/** What a survey can claim of itself. */
export interface Coverage {
  readonly grade: 'whole' | 'likely whole' | 'partial';
  readonly reasons: readonly string[];
}

/** One authority as it answered during a survey. */
export interface AuthorityAnswer {
  readonly server: string;
  readonly address: string;
  readonly authoritative: boolean;
  readonly serial: number | undefined;
  readonly transferred: boolean;
  /** Why nothing could be had from it, in words. */
  readonly problem: string | undefined;
}

/**
 * A transfer is whole for the server that gave it, at its serial; the zone is whole only where every other
 * authority that answers serves the same serial.
 */
export function transferCoverage(authorities: readonly AuthorityAnswer[]): Coverage {
  const source = authorities.find((authority) => authority.transferred);
  if (!source) return { grade: 'partial', reasons: ['No authority gave a transfer; nothing can be claimed.'] };
  const reasons = [`Transferred from ${source.server} (${source.address}) at serial ${source.serial}.`];
  const others = authorities.filter((authority) => authority !== source);
  const differing = others.filter((authority) => authority.serial !== undefined && authority.serial !== source.serial);
  const silent = others.filter((authority) => authority.serial === undefined);
  for (const authority of differing) reasons.push(`${authority.server} (${authority.address}) serves serial ${authority.serial}.`);
  for (const authority of silent) reasons.push(`${authority.server} (${authority.address}) did not answer: ${authority.problem ?? 'no reason known'}.`);
  if (differing.length > 0) return { grade: 'partial', reasons };
  return { grade: silent.length > 0 ? 'likely whole' : 'whole', reasons };
}
