import { duration } from '../../survey/duration';
import { Way } from './rule';

/** Most resolvers keep nothing for longer, whatever its TTL; seconds. An observation of the trade, and no bound. */
export const KEPT_AT_MOST = 604_800;

/** The plain choice beside lowering: the switch comes at once, and the old place goes on for as long as old answers may be remembered. */
export function doNotLower(ttl: number): Way {
  return {
    act: 'accept TTLs',
    subject: String(ttl),
    label: 'Do not lower',
    means: `Some visitors may be led to the old place for up to ${duration(ttl)} after the switch, which matters less if it keeps running.`,
  };
}

/** A person takes answers with a TTL of up to so many seconds as they are: the switch does not wait for them. */
export function acceptWay(ttl: number): Way {
  const long = ttl > KEPT_AT_MOST ? ` Most resolvers keep nothing for longer than ${duration(KEPT_AT_MOST)}; one that does not is not to be ruled out.` : '';
  return {
    act: 'accept TTLs',
    subject: String(ttl),
    label: 'Do not wait for the old TTLs',
    means: `Some visitors may be led to the old place for up to ${duration(ttl)} after the switch.${long}`,
  };
}
