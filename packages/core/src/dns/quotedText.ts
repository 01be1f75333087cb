import { utf8 } from './bytes';

/** Octets of one string of a text record (RFC 1035 §3.3). */
const STRING = 255;

/** A text as data of a TXT record: quoted strings of at most 255 octets, parted between characters. Empty: one empty string. */
export function quotedText(text: string): string {
  const parts = [''];
  let size = 0;
  for (const character of text) {
    const octets = utf8(character).length;
    if (size + octets > STRING) {
      parts.push('');
      size = 0;
    }
    size += octets;
    parts[parts.length - 1] += character.replace(/["\\]/, '\\$&');
  }
  return parts.map((part) => `"${part}"`).join(' ');
}
