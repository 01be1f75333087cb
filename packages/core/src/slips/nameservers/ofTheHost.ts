import { isSiteOf } from '../names';
import { NameSlip } from './slip';

/** The host's website was typed in the place of one of its nameservers: `quillmere.example`, `www.quillmere.example`. */
export const ofTheHost: NameSlip = ({ typed, wanted }) =>
  isSiteOf(typed, wanted)
    ? { code: 'website', cost: 1.5, text: `${typed} is the host’s domain or website, and not its nameserver: it is ${wanted}.` }
    : undefined;
