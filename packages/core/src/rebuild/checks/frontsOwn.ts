import { rrsetRead, sameData } from '../../dns/record';
import { Check, remark } from './check';

/** A value that the old host made up for its answers, and that would be planned as if it were stored: it leads to the old host's edge. */
export const frontsOwn: Check = ({ rulings, fronted }) =>
  rulings.flatMap((ruling) => {
    const answered = fronted.find((set) => set.owner.toLowerCase() === ruling.owner.toLowerCase() && set.type === ruling.type);
    if (!answered || !ruling.planned) return [];
    const [a, b] = [rrsetRead(answered), rrsetRead(ruling.planned)];
    if (!sameData(a.type, a.data, b.data)) return [];
    return [
      remark(
        ruling,
        'stop',
        'fronts-own',
        'This is what the old host answers in place of the stored value, which is not known. Look it up in its panel and type it here, or leave it out.',
      ),
    ];
  });
