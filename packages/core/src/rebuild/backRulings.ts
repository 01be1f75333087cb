import { STARTING_TTL } from './propose';
import { Ruling, isChanging } from './ruling';

/** The rulings of the leg that sets back what another one changed where it is: each row with its sides exchanged, the rest as it is. */
export function backRulings(rulings: readonly Ruling[]): Ruling[] {
  return rulings.map((ruling): Ruling => {
    if (!isChanging(ruling)) return ruling;
    const { owner, type, found, planned } = ruling;
    const there = planned && { ...planned, ttl: Math.min(planned.ttl, STARTING_TTL) };
    const base = { owner, type, found: there, planned: found, reason: 'set back as it was' };
    if (!there) return { ...base, ruling: 'new' };
    return { ...base, ruling: found ? 'repoint' : 'drop' };
  });
}
