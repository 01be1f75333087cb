import { plain } from '../../survey/words';
import { nameKey } from '../../watch/verdict';
import { KnownSet, NameSlip, SetContext, SurplusSlip } from './slip';

/** A name of another set that the agency knows: of another product of that company, of another host, or of another client. */
export const ofAnother: NameSlip = ({ typed, wanted, context }) => {
  const known = knownSet(typed, context);
  if (!known) return undefined;
  // The first of one set was typed for the first of the other.
  const isOfItsPlace = known.place === Math.min(context.wanted.map(plain).indexOf(wanted), known.set.nameservers.length - 1);
  return { code: 'other set', cost: isOfItsPlace ? 0.8 : 0.9, text: `${typed} is a nameserver of ${known.set.of}: here it is ${wanted}.` };
};

export const ofAnotherToo: SurplusSlip = ({ typed, isWanted, context }) => {
  const known = isWanted ? undefined : knownSet(typed, context);
  return known && { code: 'other set', cost: 0.5, text: `${typed} is a nameserver of ${known.set.of}: take it out.` };
};

function knownSet(typed: string, context: SetContext): { readonly set: KnownSet; readonly place: number } | undefined {
  for (const set of context.others) {
    const place = set.nameservers.findIndex((name) => nameKey(name) === nameKey(typed));
    if (place >= 0) return { set, place };
  }
  return undefined;
}
