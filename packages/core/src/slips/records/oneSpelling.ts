import { RecordSlip, sameAll } from './slip';

const WEB: ReadonlySet<string> = new Set(['A', 'AAAA', 'CNAME']);

/** Of the two spellings of the website one was changed and the other forgotten. */
export const oneSpelling: RecordSlip = ({ zone, owner, type, planned, served, found, rows, elsewhere }) => {
  if (!WEB.has(type) || planned.length === 0 || found.length === 0 || !sameAll(served, found)) return undefined;
  const [apex, www] = [zone.toLowerCase(), `www.${zone}`.toLowerCase()];
  const here = owner.toLowerCase();
  if (here !== apex && here !== www) return undefined;
  const other = here === apex ? www : apex;
  const done = rows.some((row) => {
    const there = row.owner.toLowerCase() === other && WEB.has(row.type) && row.planned.length > 0 ? elsewhere(row.owner, row.type) : undefined;
    return there !== undefined && sameAll(there, row.planned);
  });
  if (!done) return undefined;
  return {
    code: 'one spelling',
    text:
      here === apex
        ? 'Only www was changed: the domain itself still leads to the old host.'
        : 'Only the domain itself was changed: www still leads to the old host.',
  };
};
