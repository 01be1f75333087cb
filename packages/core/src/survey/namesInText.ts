import { ByteReader, asciiText } from '../dns/bytes';
import { Name } from '../dns/name';
import { TYPE_CODES } from '../dns/typeNames';

/**
 * Names that a text record leads to: includes, redirects, hosts and mail of a sender policy (RFC 7208 §5, §6), and where
 * reports are to be sent (RFC 7489 §6.2). Macros stand for other names each time and are passed over.
 *
 *     v=spf1 include:_spf.zone.example a:out.zone.example -all  // _spf.zone.example., out.zone.example.
 */
export function namesInText(type: number, data: Uint8Array): Name[] {
  if (type !== TYPE_CODES.TXT && type !== TYPE_CODES.SPF) return [];
  const text = textOf(data);
  const found: string[] = [];
  if (/^v=spf1(\s|$)/i.test(text))
    for (const [, name] of text.matchAll(/(?:^|\s)[+?~-]?(?:include|a|mx|ptr|exists|redirect)[:=]([^\s/]+)/gi)) found.push(name!);
  if (/^v=DMARC1\s*;/i.test(text)) for (const [, name] of text.matchAll(/mailto:[^@\s,;]{1,320}@([^\s,;!]+)/gi)) found.push(name!);
  return found.filter((name) => !name.includes('%')).flatMap(parsed);
}

/** The strings of a text record, put together as their readers do (RFC 7208 §3.3). */
export function textOf(data: Uint8Array): string {
  const reader = new ByteReader(data);
  let text = '';
  while (reader.left > 0) {
    const length = Math.min(reader.u8(), reader.left);
    text += asciiText(reader.bytes(length));
  }
  return text;
}

function parsed(text: string): Name[] {
  return [Name.tryParse(text) ?? []].flat();
}
