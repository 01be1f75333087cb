import { Fix, rowAt } from '../fix';
import { CheckedWeb } from '../host';
import { ownMailName } from '../ownMailName';
import { toNewWeb } from '../toNewWeb';
import { Name } from '../../dns/name';
import { namesIn } from '../../dns/rdata';
import { rrsetRead } from '../../dns/record';
import { isLead } from '../leads';
import { otherUses, usesWords } from '../otherUses';
import { Ruling, isHostsOwn } from '../ruling';
import { Check, remark } from './check';
import { isSpelling } from './leadsThere';

/** A carried record still leads to the old web host, which will be shut down. */
export const leftAtOldHost: Check = ({ zone, rulings, oldWeb, newWeb }) => {
  const aliases = oldWeb.flatMap((host) => (host.aliasTarget ? [{ host, name: Name.parse(host.aliasTarget) }] : []));
  const uses = otherUses(
    zone,
    rulings.flatMap((row) => (row.planned && !isHostsOwn(row) ? [rrsetRead(row.planned)] : [])),
  );
  return rulings.flatMap((ruling) => {
    if (!ruling.planned) return [];
    const planned = ruling.planned;
    const byAddress = oldWeb.find((host) =>
      host.addresses.some((address) => planned.data.some((data) => data === address || (MENTIONS.has(ruling.type) && mentions(data, address)))),
    );
    const set = rrsetRead(planned);
    const byAlias = aliases.find(({ name }) => set.data.some((data) => namesIn(set.type, data).some((target) => target.isAtOrBelow(name))));
    const host = byAddress ?? byAlias?.host;
    const isOld = (data: string): boolean => oldWeb.some(({ addresses }) => addresses.includes(data));
    if (!host) return [];
    // What something else uses goes on there for as long as that does: no website takes it over.
    const used = isLead(ruling.type) ? uses(set.owner) : [];
    if (used.length > 0) {
      const isSite = isSpelling(zone, set.owner);
      const why = isSite
        ? `The website is at this name, and so is something else: ${usesWords(used)}. As it stands the website stays at ${host.name}. Give the other one a name of its own first, then lead this one to ${newWeb?.name ?? 'the new place'}.`
        : `It stays at ${host.name}, since it has another use: ${usesWords(used)}. Is it still needed once the old contract ends?`;
      const fix = newWeb && (isSite ? parted(zone, rulings, ruling, isOld, newWeb) : toNewWeb(rulings, ruling, isOld, newWeb));
      return [remark(ruling, isSite && newWeb ? 'stop' : 'look', 'left-at-old-host', why, [fix])];
    }
    return [remark(ruling, 'look', 'left-at-old-host', `This still leads to ${host.name}.`, [newWeb && toNewWeb(rulings, ruling, isOld, newWeb)])];
  });
};

/** Types that name addresses within their data: SPF, and hints of HTTPS and SVCB (RFC 9460 §7.3). */
const MENTIONS: ReadonlySet<string> = new Set(['TXT', 'HTTPS', 'SVCB']);

/** `ip4:192.0.2.7` names 192.0.2.7 and not 192.0.2.70. */
function mentions(text: string, address: string): boolean {
  const at = text.indexOf(address);
  return at >= 0 && !/[0-9a-f:.]/i.test(text[at + address.length] ?? ' ');
}

/** The website's own name is where mail is delivered too: mail gets a name that keeps the old addresses, and the website goes. */
function parted(zone: Name, rulings: readonly Ruling[], { owner }: Ruling, isOld: (data: string) => boolean, newWeb: CheckedWeb): Fix | undefined {
  const name = owner.toLowerCase();
  if (![zone, zone.child('www')].some((one) => one.toString().toLowerCase() === name)) return undefined;
  const led = rulings.filter((row) => row.type === 'MX' && row.planned?.data.some((data) => data.toLowerCase().endsWith(` ${name}`)));
  const own = led.length === 1 ? ownMailName(zone, rulings, led[0]!.owner, owner) : undefined;
  const web = (['A', 'AAAA'] as const).flatMap((type) => {
    const row = rowAt(rulings, owner, type);
    return row?.planned?.data.some(isOld) ? (toNewWeb(rulings, row, isOld, newWeb)?.rows ?? []) : [];
  });
  return own && { text: `${own.text.replace(/\.$/, '')}, and lead this one to ${newWeb.name}.`, rows: [...own.rows, ...web] };
}
