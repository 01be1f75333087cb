import { LegKind } from './plan';

/** How a move is cut into legs. `nameservers`: the whole zone goes to another DNS host; `repoint`: records change where they are. */
export const WAYS = ['nameservers', 'repoint'] as const;
export type WayId = (typeof WAYS)[number];

export function legKindOf(way: WayId): LegKind {
  return way === 'nameservers' ? 'delegation' : 'repoint';
}
