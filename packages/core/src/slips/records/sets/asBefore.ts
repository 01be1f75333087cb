import { RecordSlip, shown } from '../slip';
import { lacking } from '../typedValue';

const WEB: ReadonlySet<string> = new Set(['A', 'AAAA', 'CNAME']);

/** A set that was to go, or nothing of what was to be changed: it is as it was before. */
export const asBefore: RecordSlip = ({ type, planned, served, found }) => {
  if (found.length === 0 || lacking(type, served, found).length > 0 || lacking(type, found, served).length > 0) return undefined;
  return {
    code: 'not saved',
    text:
      planned.length === 0
        ? 'It is still there: it was not deleted, or that was not saved.'
        : `It is as before: not saved yet, or typed in a panel to which nothing is delegated. It is to be ${planned.map(shown).join(', ')}.`,
  };
};

/** Of the two spellings of the website one was changed and the other forgotten. */
export const oneSpelling: RecordSlip = (wrong) => {
  const { zone, owner, type, planned, rows, elsewhere } = wrong;
  if (!WEB.has(type) || planned.length === 0 || !asBefore(wrong)) return undefined;
  const [apex, www] = [zone.toLowerCase(), `www.${zone}`.toLowerCase()];
  const here = owner.toLowerCase();
  if (here !== apex && here !== www) return undefined;
  const other = here === apex ? www : apex;
  const done = rows.some((row) => {
    const there = row.owner.toLowerCase() === other && WEB.has(row.type) && row.planned.length > 0 ? elsewhere(row.owner, row.type) : undefined;
    return there !== undefined && lacking(row.type, row.planned, there).length === 0 && there.length === row.planned.length;
  });
  if (!done) return undefined;
  const what =
    here === apex
      ? 'Only www was changed: the domain itself still leads to the old host.'
      : 'Only the domain itself was changed: www still leads to the old host.';
  return { code: 'one spelling', text: `${what} It is to be ${planned.map(shown).join(', ')}.` };
};
