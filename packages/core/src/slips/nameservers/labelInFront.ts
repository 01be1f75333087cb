import { NameSlip } from './slip';

/** More was typed in front of a name: `dns.ns1.quillmere.example`. */
export const labelInFront: NameSlip = ({ typed, missing }) => {
  const wanted = missing.find((name) => typed.toLowerCase().endsWith(`.${name.toLowerCase()}`));
  if (wanted === undefined) return undefined;
  return { code: 'in front', wanted, text: `${typed} has “${typed.slice(0, -wanted.length - 1)}” in front of the name: it is ${wanted}.` };
};
