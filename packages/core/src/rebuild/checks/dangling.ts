import { fixedAway } from '../fix';
import { Name } from '../../dns/name';
import { namesIn } from '../../dns/rdata';
import { rrsetRead } from '../../dns/record';
import { TYPE_CODES } from '../../dns/typeNames';
import { Check, remark } from './check';
import { plannedZone } from './plannedZone';

/** An alias or a service leads to a name of this zone that the plan does not have. Mail has a check of its own. */
export const dangling: Check = (input) => {
  const twice = Name.fromLabels([...input.zone.labels, ...input.zone.labels]);
  return input.rulings.flatMap((ruling) => {
    if (!ruling.planned || (ruling.type !== 'CNAME' && ruling.type !== 'SRV')) return [];
    const set = rrsetRead(ruling.planned);
    // One that holds the zone twice is told as that.
    const isHere = (name: Name): boolean => !name.isRoot && name.isAtOrBelow(input.zone) && !name.isAtOrBelow(twice);
    const targets = set.data.flatMap((data) => namesIn(set.type, data)).filter(isHere);
    return targets.flatMap((target) => {
      const zone = plannedZone(input);
      const asked = [TYPE_CODES.A, TYPE_CODES.AAAA].map((type) => zone.ask(target, type));
      // Another zone answers for it, or something outside of this one.
      const leads = asked.some((one) => one.referral !== undefined || one.answers.length > 0);
      // What carries keys, policies or proofs leads to texts.
      const texts = ruling.type === 'CNAME' && zone.ask(target, TYPE_CODES.TXT).answers.length > 0;
      return leads || texts
        ? []
        : [
            remark(ruling, 'look', 'dangling', `${target.toString()} is not in the plan: this leads nowhere.`, [
              set.data.length === 1 ? { text: 'Take it out.', rows: [fixedAway(ruling)] } : undefined,
            ]),
          ];
    });
  });
};
