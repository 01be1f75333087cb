import { readTagList } from './tagList';

/** Where the mark stands that mailboxes may show beside a sender; an empty place declines it. */
export type BimiRecord =
  | { readonly ok: true; readonly mark: string; /** Of the evidence that the mark is theirs; empty: there is none. */ readonly evidence: string }
  | { readonly ok: false; readonly problem: string };

/** True for a text that says so, well or badly. */
export function isBimi(text: string): boolean {
  return /^v\s*=\s*BIMI1\s*(?:;|$)/i.test(text);
}

/** Reads an assertion record below `_bimi`: tags as DKIM has them, `l` and `a` as addresses over HTTPS. Never throws. */
export function readBimi(text: string): BimiRecord {
  const tags = readTagList(text);
  if (!isBimi(text) || !tags) return { ok: false, problem: 'it is no list of tags that begins with v=BIMI1' };
  const mark = tags.get('l');
  if (mark === undefined) return { ok: false, problem: 'it does not say where the mark is (l=)' };
  const evidence = tags.get('a') ?? '';
  for (const url of [mark, evidence])
    if (url !== '' && !/^https:\/\/[^\s/]+/i.test(url)) return { ok: false, problem: `${url.slice(0, 60)} is not an address over HTTPS` };
  return { ok: true, mark, evidence };
}
