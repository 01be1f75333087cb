import { isAddressWord, isHostWord } from './hostWord';

/** Characters of a line that is a name and its addresses. */
const LONGEST = 300;
const NAME = /^(?:@|\*|[\p{L}\p{N}*_-][\p{L}\p{N}*._-]*)$/u;

/**
 * A name and an address with a mark or a gap between them, and nothing else; undefined where it is not that.
 *
 *     addressRow('www → 192.0.2.1')  // ['www', '192.0.2.1']
 */
export function addressRow(text: string): readonly [string, string] | undefined {
  if (text.length > LONGEST) return undefined;
  const line = text.trim();
  const [name, mark, address] = line.split(/\s+/);
  const parts = address === undefined ? line.split(/\s*[=→]\s*|\s{2,}|\t|:\s+/) : [name!, address];
  if (address !== undefined && !/^(?:→|->|=>|=|:)$/.test(mark!)) return undefined;
  if (parts.length !== 2 || line.split(/\s+/).length > 3 || !NAME.test(parts[0]!) || !isAddressWord(parts[1]!)) return undefined;
  return [parts[0]!, parts[1]!];
}

/**
 * The name of a server with its addresses beside it; undefined where the line is not that.
 *
 *     serverOfLine('ns1.host.example (203.0.113.1)')  // 'ns1.host.example'
 */
export function serverOfLine(text: string): string | undefined {
  if (text.length > LONGEST) return undefined;
  const [name, ...rest] = text.split(/[\s,;/|()[\]]+/).filter((word) => word !== '');
  if (name === undefined || rest.length === 0 || !isHostWord(name)) return undefined;
  return rest.every((word) => isAddressWord(word.replace(/^ipv?[46]?:(?=.)/i, ''))) ? name : undefined;
}
