import { Name } from '../../dns/name';
import { readCaa, mayIssue } from '../../policy/caa';
import { plain } from '../../survey/words';
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
  /** Names that may not have one, by the row that forbids it. */
  const barred = new Map<Ruling, string[]>();
  /** The same because of what stands above the zone. */
  const fromAbove: Ruling[] = [];
  for (const row of rulings) {
    if (!leadsTo(row, newWeb)) continue;
    const caa = relevant(rulings, zone, row.owner);
    const data = caa ? caa.planned!.data : above?.data;
    if (!data || mayIssue(readCaa(data), issuers, row.owner.startsWith('*.'))) continue;
    if (caa) barred.set(caa, [...(barred.get(caa) ?? []), row.owner]);
    else fromAbove.push(row);
  }
  const within = [...barred].map(([caa, names]) => {
    const wild = names.some((name) => name.startsWith('*.'));
    const fix = issuers.length === 0 ? undefined : letting(rulings, caa, issuers[0]!, wild);
    return told(caa, newWeb, 'CAA', `for ${plain(names[0]!)}${names.length > 1 ? ` and ${names.length - 1} more` : ''}`, '', fix);
  });
  const [first] = fromAbove;
  if (!above || !first) return within;
  const own = 'A CAA set at the domain itself counts before it.';
  return [...within, told(first, newWeb, `CAA of ${plain(above.owner)}, above the zone,`, 'here', own, apexSet(zone, rulings, issuers[0]))];
};

/** `who` says who may make certificates `where`: not those whom the new web host uses, or it is not known whom it uses. */
function told(row: Ruling, { name, issuers = [] }: CheckedWeb, who: string, where: string, more: string, fix: Fix | undefined): Remark {
  if (issuers.length === 0) {
    const text = `${who} says who may make certificates ${where}. Whether ${name} uses one of them is not known: say so at its page.`;
    return remark(row, 'look', 'caa-unknown', text);
  }
  const text = `${who} lets nobody make a certificate ${where} whom ${name} uses (${issuers.join(', ')}): visitors would be warned off.`;
  return remark(row, 'stop', 'caa-forbids', [text, more].filter(Boolean).join(' '), [fix]);
}

/** A set of the zone's own that lets an issuer, where there is none yet. */
function apexSet(zone: Name, rulings: readonly Ruling[], issuer: string | undefined): Fix | undefined {
  if (issuer === undefined || rowAt(rulings, zone.toString(), 'CAA')) return undefined;
  const rows = [fixedTo(rulings, zone.toString(), 'CAA', [`0 issue "${issuer}"`])];
  return { text: `Let ${issuer} make them, by a CAA set of the zone’s own.`, rows };
}

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
