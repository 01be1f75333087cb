import { namesIn } from '../../dns/rdata';
import { rrsetRead } from '../../dns/record';
import { isReverse } from '../../dns/reverse';
import { fixedTo } from '../fix';
import { Check, remark } from './check';

/**
 * An address is named by a name that stands for addresses itself: a name typed without its last dot, to which the zone was appended. A
 * receiver of mail looks up the name, finds nothing and refuses (RFC 1035 §3.5, RFC 1912 §2.1).
 */
export const addressNamed: Check = ({ zone, rulings }) =>
  rulings.flatMap((ruling) => {
    if (ruling.type !== 'PTR' || !ruling.planned) return [];
    const set = rrsetRead(ruling.planned);
    if (!isReverse(set.owner)) return [];
    const names = set.data.flatMap((data) => namesIn(set.type, data));
    const wrong = names.find(isReverse);
    if (!wrong) return [];
    const fixed = names.map((name) => (isReverse(name) && name.isBelow(zone) ? `${name.relativeTo(zone)}.` : name.toString()));
    // What is left has to be a name of more than one label: of others nobody knows what was meant.
    const isPlain = names.every((name) => !isReverse(name) || (name.isBelow(zone) && name.labelCount > zone.labelCount + 1));
    const fix = isPlain ? { text: 'Take the zone off its end.', rows: [fixedTo(rulings, ruling.owner, ruling.type, fixed, ruling.planned.ttl)] } : undefined;
    const text = `${wrong.toString()} names the address, and stands for addresses itself: the dot at the end of a name is missing.`;
    return [remark(ruling, 'look', 'address-named', text, [fix])];
  });
