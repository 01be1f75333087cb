import { NameSlip } from './slip';

/** More was typed in front of a name: `dns.ns1.quillmere.example`. */
export const labelInFront: NameSlip = ({ typed, wanted }) =>
  typed.toLowerCase().endsWith(`.${wanted.toLowerCase()}`)
    ? { code: 'in front', cost: 1, text: `${typed} has “${typed.slice(0, -wanted.length - 1)}” in front of the name: it is ${wanted}.` }
    : undefined;
