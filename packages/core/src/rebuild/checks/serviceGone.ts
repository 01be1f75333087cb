import { rrsetRead } from '../../dns/record';
import { readSpf } from '../../policy/spf';
import { textOf } from '../../survey/namesInText';
import { Purpose, meaningsOf } from '../../survey/purpose';
import { fixedAsFound } from '../fix';
import { Ruling, isAsFound, isHostsOwn } from '../ruling';
import { Check, remark } from './check';
import { textsOf } from './textsAt';

const POLICIES: ReadonlySet<Purpose> = new Set(['sender policy', 'mail out']);
const SERVICES: ReadonlySet<Purpose> = new Set(['mail in', 'calendar and devices', 'voice']);
/** By which clients find a service (RFC 2782, RFC 6186, RFC 6764); where addresses of it lead, other checks follow. */
const FINDS: ReadonlySet<string> = new Set(['SRV', 'CNAME', 'TXT', 'NAPTR', 'URI']);

/** What mail is signed, judged or found by, and is not rebuilt: nobody notices on the day of the move. RFC 6376 §3.6, RFC 7208, RFC 7489. */
export const serviceGone: Check = ({ zone, rulings }) => {
  const gone = rulings.filter((row) => row.found && !row.planned && FINDS.has(row.type) && !isHostsOwn(row));
  const remarks = rulings
    .filter(losesSpf)
    .map((row) => remark(row, 'look', 'mail-policy-gone', 'The SPF record is not rebuilt: receivers do not know any more who may send.', [asFound(row)]));
  if (gone.length === 0) return remarks;
  const found = rulings.flatMap((row) => (row.found ? [{ row, set: rrsetRead(row.found) }] : []));
  const meanings = meaningsOf(
    zone,
    found.map(({ set }) => set),
  );
  const sets = new Map(found.map(({ row, set }) => [row, set]));
  return gone.reduce((all, row) => {
    const { purpose, reason } = meanings.get(sets.get(row)!)!;
    if (losesSpf(row)) return all;
    if (POLICIES.has(purpose)) all.push(remark(row, 'look', 'mail-policy-gone', `Mail needs it and it is not rebuilt: ${reason}.`, [asFound(row)]));
    else if (SERVICES.has(purpose)) all.push(remark(row, 'look', 'service-gone', `It is for ${purpose} and is not rebuilt: ${reason}.`, [asFound(row)]));
    return all;
  }, remarks);
};

function losesSpf(row: Ruling): boolean {
  if (row.type !== 'TXT' || !row.found || isAsFound(row)) return false;
  const isSpf = (text: string): boolean => readSpf(text) !== undefined;
  return rrsetRead(row.found).data.map(textOf).some(isSpf) && !textsOf(row).some(isSpf);
}

function asFound(row: Ruling): { text: string; rows: NonNullable<ReturnType<typeof fixedAsFound>>[] } {
  return { text: 'Keep it.', rows: [fixedAsFound(row)!] };
}
