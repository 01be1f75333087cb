/** How a DNS host answers for a name that leads somewhere: with what is stored, with that until the web host has verified the domain and with its own edge then, or with its own edge. */
export const FRONTING = ['off', 'later', 'on'] as const;
export type Fronting = (typeof FRONTING)[number];

/** What a web host wants of a DNS host that can front names: nothing, never, not before it has verified the domain, or from the beginning. */
export const FRONTING_WISHES = ['either', 'off', 'verified', 'on'] as const;
export type FrontingWish = (typeof FRONTING_WISHES)[number];

/** What is planned for a name where nobody has decided: undefined where the web host wants nothing. */
export function wished(wish: FrontingWish | undefined): Fronting | undefined {
  if (wish === undefined || wish === 'either') return undefined;
  return wish === 'verified' ? 'later' : wish;
}

/** How the edge of a DNS host reaches the web host behind it; plain together with a web host that sends every visitor to HTTPS goes in a circle. */
export const EDGES = ['unknown', 'plain', 'encrypted', 'verified'] as const;
export type Edge = (typeof EDGES)[number];
