import { ValueSlip } from '../slip';
import { inSentence } from '../typedValue';

const NAMED: Readonly<Record<string, string>> = { amp: '&', quot: '"', apos: "'", lt: '<', gt: '>', nbsp: ' ' };

/** Marks of a page's source stand in the value: `&quot;`, `&#59;`, `%20`; or backslashes of a zone file. */
export const entities: ValueSlip = ({ is, was }) => {
  const decoded = is
    .replace(/&(?:#(\d{1,5})|#x([0-9a-f]{1,4})|([a-z]{2,5}));/gi, (all, decimal?: string, hex?: string, name?: string) =>
      name === undefined ? String.fromCharCode(decimal === undefined ? parseInt(hex!, 16) : Number(decimal)) : (NAMED[name.toLowerCase()] ?? all),
    )
    .replace(/%([2-7][0-9a-f])/gi, (_, hex: string) => String.fromCharCode(parseInt(hex, 16)));
  const bare = decoded.replace(/^"(.*)"$/s, '$1');
  if (decoded !== is && (decoded === was || bare === was))
    return { code: 'entities', cost: 1, text: `It was copied from the source of a page, with marks such as ${firstMark(is)}: type ${inSentence(was)}.` };
  const plain = is.replace(/\\(.)/gs, '$1');
  if (plain !== is && plain === was) return { code: 'backslashes', cost: 1, text: `The backslashes are stored as part of it: type ${inSentence(was)}.` };
  return undefined;
};

const firstMark = (text: string): string => /&[#\w]+;|%[0-9a-f]{2}/i.exec(text)![0];
