import { RecordSlip, without } from './slip';
import { joined } from './text';

/** Quotes were typed into a panel that takes text bare: they are part of the text now. */
export const quotesStored: RecordSlip = ({ type, planned, served }) => {
  if (type !== 'TXT' && type !== 'SPF') return undefined;
  for (const there of without(served, planned)) {
    const text = joined(there);
    if (!/^".*"$/s.test(text)) continue;
    const bare = text.slice(1, -1).replace(/" *"/g, '');
    if (planned.some((wanted) => joined(wanted) === bare))
      return { code: 'quotes stored', text: 'The quotes are stored as part of the text: type it without them.' };
  }
  return undefined;
};
