import { NameSlip } from './slip';

/** Only the beginning of a name was typed or pasted: `ns1`, or `ns1.quillmere`. */
export const cutShort: NameSlip = ({ typed, wanted }) =>
  wanted.toLowerCase().startsWith(`${typed.toLowerCase()}.`) ? { code: 'cut', cost: 1, text: `${typed} is not the whole name: it is ${wanted}.` } : undefined;
