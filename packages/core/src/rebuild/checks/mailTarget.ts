import { Fix, fixedAsFound, fixedTo, rowAt } from '../fix';
import { ownMailName } from '../ownMailName';
import { Name } from '../../dns/name';
import { namesIn } from '../../dns/rdata';
import { rrsetRead } from '../../dns/record';
import { Ruling } from '../ruling';
import { Check, remark } from './check';

/** Mail is left alone while the name it leads to moves or goes (RFC 5321 §5.1, RFC 2181 §10.3). */
export const mailTarget: Check = ({ zone, rulings, apexAlias }) =>
  rulings.flatMap((ruling) => {
    if (ruling.type !== 'MX' || !ruling.planned) return [];
    const set = rrsetRead(ruling.planned);
    /** Mail led to where the alias leads, where that is no alias of this zone again. */
    const past = (alias: Ruling): Fix | undefined => {
      const end = alias.planned!.data[0]!;
      if (rowAt(rulings, end, 'CNAME')?.planned) return undefined;
      const data = ruling.planned!.data.map((one) => (one.toLowerCase().endsWith(` ${alias.owner.toLowerCase()}`) ? one.replace(/\S+$/, end) : one));
      return { text: `Lead mail to ${end.replace(/\.$/, '')} itself.`, rows: [fixedTo(rulings, ruling.owner, 'MX', data)] };
    };
    return set.data.flatMap((data) => {
      const target = namesIn(set.type, data)[0];
      if (!target || target.labels.length === 0 || !target.isAtOrBelow(zone)) return [];
      const there = rulings.filter((other) => other.owner.toLowerCase() === target.toString().toLowerCase());
      const addresses = there.filter((other) => other.type === 'A' || other.type === 'AAAA');
      const alias = there.find((other) => other.type === 'CNAME' && other.planned);
      // Mail that goes to the apex finds the addresses that are answered there.
      if (alias && apexAlias.takes && target.equals(zone))
        return [
          remark(ruling, 'look', 'mail-target-moves', `Mail leads to ${plain(target)}, whose address moves with the website.`, [
            ownMailName(zone, rulings, ruling.owner, target.toString()),
          ]),
        ];
      if (alias) return [remark(ruling, 'look', 'mail-alias', `${plain(target)} is an alias; mail must lead to a name with addresses.`, [past(alias)])];
      if (!addresses.some((other) => other.planned))
        return [
          remark(ruling, 'stop', 'mail-target-gone', `Mail leads to ${plain(target)}, which has no address in the new zone.`, [
            addresses.length > 0 ? { text: 'Carry its address.', rows: addresses.flatMap((other) => fixedAsFound(other) ?? []) } : undefined,
          ]),
        ];
      const moved = addresses.filter((other) => other.ruling === 'repoint');
      return moved.length > 0
        ? [
            remark(ruling, 'look', 'mail-target-moves', `Mail leads to ${plain(target)}, whose address moves with the website.`, [
              ownMailName(zone, rulings, ruling.owner, target.toString()),
            ]),
          ]
        : [];
    });
  });

function plain(name: Name): string {
  return name.toString().replace(/\.$/, '');
}
