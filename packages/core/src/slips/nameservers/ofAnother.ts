import { nameKey } from '../../watch/verdict';
import { NameSlip } from './slip';

/** A name of another set that the agency knows: of another product of that company, of another host, or of another client. */
export const ofAnother: NameSlip = ({ typed, key, missing, context }) => {
  const other = context.others.find((set) => set.nameservers.some((name) => nameKey(name) === key));
  if (!other) return undefined;
  const place = other.nameservers.findIndex((name) => nameKey(name) === key);
  const wanted = missing[Math.min(place, missing.length - 1)] ?? null;
  const instead = wanted === null ? 'take it out' : `here it is ${wanted}`;
  return { code: 'other set', wanted, text: `${typed} is a nameserver of ${other.of}: ${instead}.` };
};
