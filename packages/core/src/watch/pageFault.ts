/** How what is broken about a page begins, in words that people read and that are told apart by. */
export const SILENT = 'does not answer: ';
export const REFUSED_CERTIFICATE = 'a browser refuses the certificate: ';
export const ANSWERS = 'answers ';
export const DROPS_PATH = 'the redirect drops the path: every page leads to the front page';
export const HOLDING = 'shows its page for domains that it does not know: ';
export const UNUSED = 'shows a page as hosts show it for unused domains: ';

/** `silent`: nobody answers; `certificate`: browsers refuse it; `unknown`: the host says that there is nothing, or nothing for us. */
export type PageFault = 'silent' | 'certificate' | 'unknown' | 'other';

/** What kind of fault the text of something broken tells of. */
export function pageFault(text: string): PageFault {
  if (text.startsWith(SILENT)) return 'silent';
  if (text.startsWith(REFUSED_CERTIFICATE)) return 'certificate';
  if (text.startsWith(HOLDING) || text.startsWith(UNUSED)) return 'unknown';
  // Forbidden, not found, gone, another host's (RFC 9110 §15.5): what hosts say of a site that they do not have, or have not published.
  return /^answers (?:403|404|410|421)\b/.test(text) ? 'unknown' : 'other';
}
