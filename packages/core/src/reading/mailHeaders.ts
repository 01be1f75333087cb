import { Line } from './lines';

/** A name that a text has, without what stands at it. */
export interface NameFound {
  readonly name: string;
  readonly line: number;
}

const HEADER = /^[A-Za-z][A-Za-z0-9-]{1,60}:(?:\s|$)/;
const SURE = /^(?:dkim-signature|return-path|received|authentication-results|arc-seal|arc-message-signature|message-id):/i;

/** True where these lines begin with the header of a mail. */
export function isMail(lines: readonly Line[]): boolean {
  return lines.slice(0, 400).some(({ text }) => SURE.test(text)) && lines.slice(0, 400).filter(({ text }) => HEADER.test(text)).length >= 2;
}

/**
 * Names in the headers of a mail: selectors of signatures (RFC 6376 §3.5, §3.6.2.1) and the domains of senders, bounces and servers.
 * Headers in the quoted or forwarded part count as well.
 */
export function readMailHeaders(lines: readonly Line[]): { readonly names: readonly NameFound[]; readonly read: ReadonlySet<number> } {
  const names: NameFound[] = [];
  const read = new Set<number>();
  let header: { text: string; line: number } | undefined;
  const close = (): void => {
    if (header) for (const name of namesInHeader(header.text)) names.push({ name, line: header.line });
    header = undefined;
  };
  for (const { text, line } of lines) {
    if (header && /^[ \t]+\S/.test(text)) {
      // Folded lines belong to the header before them (RFC 5322 §2.2.3).
      header.text += ` ${text.trim()}`;
      read.add(line);
      continue;
    }
    close();
    if (!HEADER.test(text)) continue;
    header = { text, line };
    read.add(line);
  }
  close();
  return { names, read };
}

function namesInHeader(text: string): string[] {
  const tag = (name: string): string | undefined => new RegExp(`[;:]\\s*${name}\\s*=\\s*([^;\\s]+)`, 'i').exec(text)?.[1];
  if (/^(?:dkim-signature|arc-seal|arc-message-signature):/i.test(text)) {
    const [selector, domain] = [tag('s'), tag('d')];
    return selector && domain ? [`${selector}._domainkey.${domain}.`] : [];
  }
  if (/^authentication-results:/i.test(text)) {
    const [selector, domain] = [/header\.s=([\w.-]+)/i.exec(text)?.[1], /header\.d=([\w.-]+)/i.exec(text)?.[1]];
    return selector && domain ? [`${selector}._domainkey.${domain}.`] : [];
  }
  if (/^(?:return-path|from|sender|reply-to|x-original-from|to|cc|message-id|list-unsubscribe|errors-to):/i.test(text))
    return [...text.matchAll(/@([a-z0-9](?:[a-z0-9._-]{0,250}[a-z0-9])?)/gi)].map((match) => `${match[1]!}.`);
  if (/^received:/i.test(text)) return [...text.matchAll(/\b(?:from|by)\s+([a-z0-9][a-z0-9.-]{1,250}[a-z0-9])/gi)].map((match) => `${match[1]!}.`);
  return [];
}
