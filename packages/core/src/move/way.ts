import { LegKind } from './plan';

/**
 * How a move is cut into legs. `nameservers`: the whole zone goes to another DNS host; `repoint`: records change where they are; the
 * next two do both in turn, one leg after the other; `another account`: the zone goes into another account behind the same servers.
 */
export const WAYS = ['nameservers', 'repoint', 'nameservers first', 'website first', 'another account'] as const;
export type WayId = (typeof WAYS)[number];

const FIRST: Readonly<Record<WayId, LegKind>> = {
  nameservers: 'delegation',
  repoint: 'repoint',
  'nameservers first': 'delegation',
  'website first': 'repoint',
  'another account': 'repoint',
};

/** True for a way in two stages; a second stage is the last, and goes no such way. */
export function isInStages(way: WayId): boolean {
  return way === 'nameservers first' || way === 'website first';
}

/** The kind of the first leg. */
export function legKindOf(way: WayId): LegKind {
  return FIRST[way];
}

/** The second leg as it was meant when the way was chosen: it is chosen anew, on a survey of its own, when the first is over. */
export interface NextLeg {
  readonly kind: LegKind;
  /** Hosts by their ids; null: not said, or not this leg's matter. */
  readonly newDnsHost: string | null;
  readonly newWebHost: string | null;
}

/** What the first leg is about, and what is left for a second one; undefined where there is none. */
export function legsOf(
  way: WayId,
  hosts: { readonly newDnsHost: string | null; readonly newWebHost: string | null },
): { readonly first: { readonly newDnsHost: string | null; readonly newWebHost: string | null }; readonly next: NextLeg | undefined } {
  const { newDnsHost, newWebHost } = hosts;
  if (way === 'nameservers first') return { first: { newDnsHost, newWebHost: null }, next: { kind: 'repoint', newDnsHost: null, newWebHost } };
  if (way === 'website first') return { first: { newDnsHost: null, newWebHost }, next: { kind: 'delegation', newDnsHost, newWebHost: null } };
  return { first: hosts, next: undefined };
}
