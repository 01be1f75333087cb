import { plain } from '../../survey/words';

/**
 * A field that holds something else than one name as it is written: a URL, a comma, a blank, quotes, an address. What can be
 * read as names is given all the same.
 *
 *     written('https://ns1.quillmere.example/')  // { names: ['ns1.quillmere.example'], slip: { code: 'url', … } }
 */
export function written(field: string): { names: string[]; slip?: { code: string; text: string } } {
  const text = field.trim();
  const bare = (name: string): string => name.replace(/^["'`<(]+|["'`>)]+$/g, '').replace(/\.+$/, '');
  const url = /^[a-z][a-z0-9+.-]{0,20}:\/\/([^/\s]*)/i.exec(text);
  if (url) return { names: [bare(url[1]!)].filter(isName), slip: { code: 'url', text: `${text} is a URL: only the name is typed.` } };
  if (/^[\d.]+$/.test(text) || /^[0-9a-f:]*:[0-9a-f:.]*$/i.test(text))
    return { names: [], slip: { code: 'address', text: `${text} is an address: the name of the server is asked for.` } };
  const parts = text.split(/[\s,]+/).filter(Boolean);
  if (text.includes(','))
    return { names: parts.map(bare).filter(isName), slip: { code: 'comma', text: `“${text}” holds a comma: each name has a field of its own.` } };
  if (parts.length > 1)
    return { names: parts.map(bare).filter(isName), slip: { code: 'blank', text: `“${text}” holds a blank: each name has a field of its own.` } };
  const name = bare(text);
  if (name !== plain(text)) return { names: [name].filter(isName), slip: { code: 'marks', text: `${text} has marks around it: only the name is typed.` } };
  if (name !== '' && !isName(name)) return { names: [], slip: { code: 'no name', text: `“${text.slice(0, 80)}” is no name of a server.` } };
  return { names: name === '' ? [] : [name] };
}

/** Letters, digits, hyphens and underscores, with single dots between them; an address is none. */
function isName(text: string): boolean {
  return text.length <= 253 && !/^[\d.]+$/.test(text) && /^[\p{L}\p{N}_-]+(?:\.[\p{L}\p{N}_-]+)*$/u.test(text);
}
