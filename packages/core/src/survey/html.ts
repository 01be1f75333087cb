import { Tokenizer } from 'htmlparser2';
import { storable } from '../dns/storable';

/** Called for each part of a document, in order. Names of tags are in small letters. */
export interface HtmlParts {
  readonly open: (tag: string) => void;
  readonly close: (tag: string) => void;
  /** Text that a reader sees, entities resolved, in pieces; not that of scripts and style sheets. */
  readonly text: (piece: string) => void;
}

/**
 * Takes HTML apart in time linear in its length, however badly it is formed: tags that are never closed, quotes without
 * end, a million brackets. Tags are told as they stand, without putting right how they are nested.
 */
export function readHtml(html: string, parts: HtmlParts): void {
  let unseen: string | undefined;
  const tell = (piece: string): void => {
    if (unseen === undefined) parts.text(piece);
  };
  const open = (start: number, end: number): void => {
    const tag = html.slice(start, end).toLowerCase();
    if (tag === 'script' || tag === 'style') unseen = tag;
    parts.open(tag);
  };
  const close = (start: number, end: number): void => {
    const tag = html.slice(start, end).toLowerCase();
    if (tag === unseen) unseen = undefined;
    parts.close(tag);
  };
  const tokenizer = new Tokenizer(
    { decodeEntities: true },
    {
      onopentagname: open,
      onclosetag: close,
      ontext: (start, end) => tell(html.slice(start, end)),
      ontextentity: (code) => tell(String.fromCodePoint(code)),
      oncdata: () => undefined,
      oncomment: () => undefined,
      ondeclaration: () => undefined,
      onprocessinginstruction: () => undefined,
      onattribname: () => undefined,
      onattribdata: () => undefined,
      onattribentity: () => undefined,
      onattribend: () => undefined,
      onopentagend: () => undefined,
      onselfclosingtag: () => (unseen = undefined),
      onend: () => undefined,
    },
  );
  tokenizer.write(html);
  tokenizer.end();
}

/** The longest title that is kept. */
const TITLE = 300;

/** What a visitor reads on a page, white space drawn together, and its title. */
export function readPage(html: string): { readonly title: string | undefined; readonly text: string } {
  const pieces: string[] = [];
  let title: string | undefined;
  let inTitle = false;
  readHtml(html, {
    open: (tag) => {
      if (tag === 'title' && title === undefined) [inTitle, title] = [true, ''];
      pieces.push(' ');
    },
    close: (tag) => {
      if (tag === 'title') inTitle = false;
      pieces.push(' ');
    },
    text: (piece) => {
      if (inTitle) title = `${title ?? ''}${piece}`.slice(0, TITLE);
      pieces.push(piece);
    },
  });
  return { title: title === undefined ? undefined : storable(drawn(title)), text: storable(drawn(pieces.join(''))) };
}

/** White space drawn together. */
export function drawn(text: string): string {
  return text.replace(/\s+/g, ' ').trim();
}
