import { Fix, fixedAsFound, fixedTo, rowAt } from '../fix';
import { ownMailName } from '../ownMailName';
import { Name } from '../../dns/name';
import { namesIn } from '../../dns/rdata';
import { rrsetRead } from '../../dns/record';
import { Ruling } from '../ruling';
import { TYPE_CODES } from '../../dns/typeNames';
import { Check, CheckInput, Remark, remark } from './check';
import { leadsThere } from './leadsThere';
import { plannedZone } from './plannedZone';

/** Where a name leads in the plan, as a server answers it. */
interface End {
  /** Another zone answers for it. */
  readonly isElsewhere: boolean;
  readonly isLed: boolean;
  readonly isAlias: boolean;
  /** The rows of its addresses, those of a wildcard that answers in their place (RFC 4592 §3.3) included. */
  readonly addresses: readonly Ruling[];
}

/** Mail is left alone while the name it leads to moves or goes (RFC 5321 §5.1, RFC 2181 §10.3). */
export const mailTarget: Check = (input) => {
  const { zone, rulings, apexAlias } = input;
  // Thousands of names may have their mail at one place.
  const ends = new Map<string, End>();
  return rulings.flatMap((ruling) => {
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
      const moves = (): Remark =>
        remark(
          ruling,
          leadsThere(input, target) ? 'stop' : 'look',
          'mail-target-moves',
          `Mail leads to ${plain(target)}, whose address moves with the website.`,
          [ownMailName(zone, rulings, ruling.owner, target.toString())],
        );
      const alias = rowAt(rulings, target.toString(), 'CNAME');
      // Mail that goes to the apex finds the addresses that are answered there.
      if (alias?.planned && apexAlias.takes && target.equals(zone)) return [moves()];
      const end = ends.get(target.key) ?? endOf(input, target);
      ends.set(target.key, end);
      if (end.isElsewhere) return [];
      if (alias?.planned || end.isAlias)
        return [
          remark(ruling, 'look', 'mail-alias', `${plain(target)} is an alias; mail must lead to a name with addresses.`, [
            alias?.planned ? past(alias) : undefined,
          ]),
        ];
      if (!end.isLed)
        return [
          remark(ruling, 'stop', 'mail-target-gone', `Mail leads to ${plain(target)}, which has no address in the new zone.`, [
            end.addresses.length > 0 ? { text: 'Keep its address.', rows: end.addresses.flatMap((other) => fixedAsFound(other) ?? []) } : undefined,
          ]),
        ];
      return end.addresses.some((other) => other.ruling === 'repoint') ? [moves()] : [];
    });
  });
};

function endOf(input: CheckInput, target: Name): End {
  const asked = [TYPE_CODES.A, TYPE_CODES.AAAA].map((type) => plannedZone(input).ask(target, type));
  const answers = asked.flatMap((one) => one.answers);
  const at = (owner: Name): Ruling[] => (['A', 'AAAA'] as const).flatMap((type) => rowAt(input.rulings, owner.toString(), type) ?? []);
  let addresses = at(target);
  for (let name = target; answers.length > 0 && addresses.length === 0 && !name.equals(input.zone); name = name.parent) addresses = at(name.parent.child('*'));
  return {
    isElsewhere: asked.some((one) => one.referral !== undefined),
    isLed: answers.length > 0,
    isAlias: answers.some((set) => set.type === TYPE_CODES.CNAME),
    addresses,
  };
}

function plain(name: Name): string {
  return name.toString().replace(/\.$/, '');
}
