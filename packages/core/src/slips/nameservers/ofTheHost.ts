import { NameSlip } from './slip';

/** The host's website was typed in the place of one of its nameservers: `quillmere.example`, `www.quillmere.example`. */
export const ofTheHost: NameSlip = ({ typed, missing }) => {
  const site = typed.toLowerCase().replace(/^www\./, '');
  const wanted = missing.find((name) => name.toLowerCase().endsWith(`.${site}`) && site.includes('.'));
  return wanted === undefined ? undefined : { code: 'website', wanted, text: `${typed} is the website of the host and no nameserver: it is ${wanted}.` };
};
