import { Name } from '../../dns/name';
import { readCaa, mayIssue } from '../../policy/caa';
import { CheckedWeb } from '../host';
import { Fix, fixedTo, rowAt } from '../fix';
import { isLead } from '../leads';
import { Ruling } from '../ruling';
import { Check, Remark, remark } from './check';

/** CAA that lets nobody whom the new web host uses make a certificate, looked for up the tree (RFC 8659 §3, §4). */
export const caaForbids: Check = ({ zone, rulings, newWeb, outside }) => {
  const above = outside?.caa ?? undefined;
  if (!newWeb || (!above && !rulings.some((row) => row.type === 'CAA' && row.planned))) return [];
  const issuers = newWeb.issuers ?? [];
  /** Rows whose names may not have one because of what stands above the zone. */
  const outer: Ruling[] = [];
  /** Names that may not have one, by the row that forbids it. */
  const barred = new Map<Ruling, string[]>();
  for (const row of rulings) {
    if (!leadsTo(row, newWeb)) continue;
    const caa = relevant(rulings, zone, row.owner);
    if (!caa && above && !mayIssue(readCaa(above.data), issuers, row.owner.startsWith('*.'))) outer.push(row);
    if (caa && !mayIssue(readCaa(caa.planned!.data), issuers, row.owner.startsWith('*.'))) barred.set(caa, [...(barred.get(caa) ?? []), row.owner]);
  }
  const [first] = outer;
  const fromAbove =
    above && first
      ? [
          remark(
            first,
            issuers.length === 0 ? 'look' : 'stop',
            issuers.length === 0 ? 'caa-unknown' : 'caa-forbids',
            `CAA of ${above.owner.replace(/\.$/, '')}, above the zone, ${
              issuers.length === 0
                ? `says who may make certificates here. Whether ${newWeb.name} uses one of them is not known: say so at its page.`
                : `lets nobody make a certificate whom ${newWeb.name} uses (${issuers.join(', ')}): visitors would be warned off. A CAA set at the apex of the zone counts before it.`
            }`,
            issuers.length === 0 || rowAt(rulings, zone.toString(), 'CAA')
              ? []
              : [
                  {
                    text: `Let ${issuers[0]!} make them, by a CAA set of the zone’s own.`,
                    rows: [fixedTo(rulings, zone.toString(), 'CAA', [`0 issue "${issuers[0]!}"`])],
                  },
                ],
          ),
        ]
      : [];
  const within = [...barred].map(([caa, names]): Remark => {
    const which = names[0]!.replace(/\.$/, '') + (names.length > 1 ? ` and ${names.length - 1} more` : '');
    if (issuers.length === 0)
      return remark(
        caa,
        'look',
        'caa-unknown',
        `CAA says who may make certificates for ${which}. Whether ${newWeb.name} uses one of them is not known: say so at its page.`,
      );
    const wild = names.some((name) => name.startsWith('*.'));
    return remark(
      caa,
      'stop',
      'caa-forbids',
      `CAA lets nobody make a certificate for ${which} whom ${newWeb.name} uses (${issuers.join(', ')}): visitors would be warned off.`,
      [letting(rulings, caa, issuers[0]!, wild)],
    );
  });
  return [...within, ...fromAbove];
};

function leadsTo({ type, planned }: Ruling, { addresses, aliasTarget }: CheckedWeb): boolean {
  return isLead(type) && planned !== undefined && planned.data.some((data) => addresses.includes(data) || data.toLowerCase() === aliasTarget?.toLowerCase());
}

/** The set that counts for a name: its own, or the nearest above it within the zone; what stands above it is asked for when the zone is surveyed. */
function relevant(rulings: readonly Ruling[], zone: Name, owner: string): Ruling | undefined {
  for (let at = Name.parse(owner.replace(/^\*\./, '')); at.isAtOrBelow(zone); at = at.parent) {
    const caa = rowAt(rulings, at.toString(), 'CAA');
    if (caa?.planned) return caa;
    if (at.isRoot) break;
  }
  return undefined;
}

/** The same set with the issuer beside those that it names; undefined where a property that nobody knows stands in the way. */
function letting(rulings: readonly Ruling[], caa: Ruling, issuer: string, wild: boolean): Fix | undefined {
  const { critical, issueWild } = readCaa(caa.planned!.data);
  if (critical.length > 0) return undefined;
  const tags = ['issue', ...(wild && issueWild ? ['issuewild'] : [])];
  // That nobody may would go on counting for nothing beside a name.
  const stays = caa.planned!.data.filter((one) => !tags.some((tag) => new RegExp(`^\\d+ ${tag} ";?"$`, 'i').test(one)));
  return {
    text: `Let ${issuer} make them too.`,
    rows: [fixedTo(rulings, caa.owner, 'CAA', [...stays, ...tags.map((tag) => `0 ${tag} "${issuer}"`)])],
  };
}
