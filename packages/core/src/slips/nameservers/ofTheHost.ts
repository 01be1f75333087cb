import { NameSlip } from './slip';

/** The host's website was typed in the place of one of its nameservers: `quillmere.example`, `www.quillmere.example`. */
export const ofTheHost: NameSlip = ({ typed, wanted }) => {
  const site = typed.toLowerCase().replace(/^www\./, '');
  return site.includes('.') && wanted.toLowerCase().endsWith(`.${site}`)
    ? { code: 'website', cost: 1.5, text: `${typed} is the domain or website of the host and no nameserver: it is ${wanted}.` }
    : undefined;
};
