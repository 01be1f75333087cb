import { NameSlip } from './slip';

/** Only the beginning of a name was typed or pasted: `ns1`, or `ns1.quillmere`. */
export const cutShort: NameSlip = ({ typed, missing }) => {
  const wanted = missing.find((name) => name.toLowerCase().startsWith(`${typed.toLowerCase()}.`));
  return wanted === undefined ? undefined : { code: 'cut', wanted, text: `${typed} is not the whole name: it is ${wanted}.` };
};
