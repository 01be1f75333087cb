import { namesIn } from '../../dns/rdata';
import { rrsetRead } from '../../dns/record';
import { Check, remark } from './check';

/** Mail is left alone while the name it leads to moves or goes (RFC 5321 §5.1, RFC 2181 §10.3). */
export const mailTarget: Check = ({ zone, rulings }) =>
  rulings.flatMap((ruling) => {
    if (ruling.type !== 'MX' || !ruling.planned) return [];
    const set = rrsetRead(ruling.planned);
    return set.data.flatMap((data) => {
      const target = namesIn(set.type, data)[0];
      if (!target || target.labels.length === 0 || !target.isAtOrBelow(zone)) return [];
      const there = rulings.filter((other) => other.owner.toLowerCase() === target.toString().toLowerCase());
      const addresses = there.filter((other) => other.type === 'A' || other.type === 'AAAA');
      if (there.some((other) => other.type === 'CNAME' && other.planned))
        return [remark(ruling, 'look', 'mail-alias', `${target.toString()} is an alias; mail must lead to a name with addresses.`)];
      if (!addresses.some((other) => other.planned))
        return [remark(ruling, 'stop', 'mail-target-gone', `Mail leads to ${target.toString()}, which has no address in the new zone.`)];
      const moved = addresses.filter((other) => other.ruling === 'repoint');
      return moved.length > 0 ? [remark(ruling, 'look', 'mail-target-moves', `Mail leads to ${target.toString()}, whose address moves with the website.`)] : [];
    });
  });
