import { Name } from '../../dns/name';
import { rrsetRead } from '../../dns/record';
import { fixedAsFound } from '../fix';
import { isLead } from '../leads';
import { otherUses, usesWords } from '../otherUses';
import { isHostsOwn } from '../ruling';
import { Check, remark } from './check';
import { isSpelling, leadsThere } from './leadsThere';

/**
 * A name that something else than the website uses lands at a web host by the plan: mail, a service or a subzone would be looked for there.
 * Where an alias of the zone takes it along, nothing at the name itself has changed. Of mail a check of its own tells.
 */
export const useAtWebHost: Check = (input) => {
  const { zone, rulings, newWeb } = input;
  if (!newWeb) return [];
  const planned = rulings.flatMap((row) => (row.planned && !isHostsOwn(row) ? [rrsetRead(row.planned)] : []));
  const uses = otherUses(zone, planned);
  const told = new Set<string>();
  return rulings.flatMap((row) => {
    const owner = row.owner.toLowerCase();
    // An address that is kept led there before the move as well.
    if (!row.planned || !row.found || !isLead(row.type) || (row.ruling === 'carry' && row.type !== 'CNAME') || told.has(owner)) return [];
    const name = Name.parse(row.owner);
    const byRecord = uses(name).filter((use) => use.type !== undefined && use.type !== 'MX');
    const byName = row.ruling === 'carry' ? uses(name).filter((use) => use.type === undefined) : [];
    if (byRecord.length + byName.length === 0 || !leadsThere(input, name)) return [];
    told.add(owner);
    const fix = isSpelling(zone, name) ? undefined : fixedAsFound(row);
    const fixes = row.ruling !== 'carry' && fix ? [{ text: 'Keep it as it was found.', rows: [fix] }] : [];
    const text = `By the plan this leads to ${newWeb.name}, a web host, and it is used otherwise: ${usesWords([...byRecord, ...byName])}. Keep its old value, or have ${newWeb.name} say that it serves this too.`;
    return [remark(row, byRecord.length > 0 ? 'stop' : 'look', 'use-at-web-host', text, fixes)];
  });
};
