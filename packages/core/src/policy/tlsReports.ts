import { readTagList } from './tagList';

/** Where reports about TLS on the way of mail go (RFC 8460 §3). */
export type TlsReports = { readonly ok: true; readonly to: readonly string[] } | { readonly ok: false; readonly problem: string };

/** True for a text that says so, well or badly. */
export function isTlsReports(text: string): boolean {
  return /^v\s*=\s*TLSRPTv1\s*(?:;|$)/i.test(text);
}

/** Reads the record at `_smtp._tls` (RFC 8460 §3): domains of mail addresses and hosts of web addresses. Never throws. */
export function readTlsReports(text: string): TlsReports {
  const rua = isTlsReports(text) ? readTagList(text)?.get('rua') : undefined;
  if (rua === undefined) return { ok: false, problem: 'it does not say where reports go (rua=)' };
  const to: string[] = [];
  for (const uri of rua.split(',')) {
    const place = /^\s*(?:mailto:[^@\s]+@|https:\/\/)([^\s/!]+)/i.exec(uri)?.[1];
    if (place === undefined) return { ok: false, problem: `"${uri.trim().slice(0, 60)}" is neither mailto: nor https:` };
    to.push(place.toLowerCase());
  }
  return { ok: true, to: [...new Set(to)] };
}
