import { capital } from '../../survey/words';
import { RecordSlip, sameAll, shown, without } from './slip';

const ADDRESSES: ReadonlySet<string> = new Set(['A', 'AAAA']);

/** The new value was added, and the old one not taken out. */
export const leftBeside: RecordSlip = ({ type, planned, served, found }) => {
  const more = without(served, planned);
  if (planned.length === 0 || more.length === 0 || without(planned, served).length > 0 || without(more, found).length > 0) return undefined;
  const what = ADDRESSES.has(type) ? `the old address ${more.join(', ')}` : more.map(shown).join(', ');
  return { code: 'left beside', text: `${capital(what)} is left beside the new: take it out, or a part of the visitors goes on being led there.` };
};

/** A set that was to go, or nothing of what was to be changed: it is as it was before. */
export const asBefore: RecordSlip = ({ planned, served, found }) =>
  found.length > 0 && sameAll(served, found)
    ? {
        code: 'not saved',
        text:
          planned.length === 0
            ? 'It is still there: it was not deleted, or that was not saved.'
            : 'It is as before: not saved yet, or typed in a panel to which nothing is delegated.',
      }
    : undefined;

/** Nothing is there, and nothing else explains why. */
export const notThere: RecordSlip = ({ served }) =>
  served.length === 0 ? { code: 'not there', text: 'It is not there: not typed, or not saved.' } : undefined;
