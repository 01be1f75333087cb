import { readTagList } from './tagList';

export type DkimKey =
  | { readonly ok: true; readonly kind: string; /** Of RSA, where it can be told. */ readonly bits: number | undefined; readonly revoked: boolean }
  | { readonly ok: false; readonly problem: string };

/** Bits of an RSA key under which receivers take a signature for none (RFC 8301 §3.2). */
export const DKIM_BITS = 1024;
/** Octets of an Ed25519 key (RFC 8463 §4). */
const ED25519 = 32;

/** Reads the key record of a selector (RFC 6376 §3.6.1). Never throws. */
export function readDkimKey(text: string): DkimKey {
  const tags = readTagList(text);
  if (!tags) return { ok: false, problem: 'it is no list of tags' };
  const version = tags.get('v');
  if (version !== undefined && (version !== 'DKIM1' || [...tags.keys()][0] !== 'v')) return { ok: false, problem: 'v=DKIM1 has to stand first' };
  const key = tags.get('p')?.replace(/\s+/g, '');
  if (key === undefined) return { ok: false, problem: 'there is no key in it (p=)' };
  const kind = (tags.get('k') ?? 'rsa').toLowerCase();
  if (key === '') return { ok: true, kind, bits: undefined, revoked: true };
  const octets = base64(key);
  if (!octets) return { ok: false, problem: 'the key is no whole base64: it is cut, or something was lost in it' };
  if (kind === 'ed25519')
    return octets.length === ED25519 ? { ok: true, kind, bits: undefined, revoked: false } : { ok: false, problem: 'an Ed25519 key has 32 octets' };
  if (kind !== 'rsa') return { ok: true, kind, bits: undefined, revoked: false };
  const bits = rsaBits(octets);
  return bits === undefined ? { ok: false, problem: 'the key is cut, or is no RSA key' } : { ok: true, kind, bits, revoked: false };
}

const ALPHABET = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/';

function base64(text: string): number[] | undefined {
  if (text.length % 4 !== 0 || !/^[A-Za-z0-9+/]+={0,2}$/.test(text)) return undefined;
  const octets: number[] = [];
  let held = 0;
  let bits = 0;
  for (const letter of text.replace(/=+$/, '')) {
    held = ((held << 6) | ALPHABET.indexOf(letter)) & 0xffff;
    bits += 6;
    if (bits >= 8) {
      bits -= 8;
      octets.push((held >> bits) & 0xff);
    }
  }
  return octets;
}

/** Bits of the modulus of a SubjectPublicKeyInfo, or of a bare RSAPublicKey (RFC 8017 §A.1.1); undefined where the DER does not add up. */
function rsaBits(octets: readonly number[]): number | undefined {
  const outer = element(octets, 0);
  if (outer?.tag !== 0x30 || outer.end !== octets.length) return undefined;
  const first = element(octets, outer.start);
  if (!first) return undefined;
  if (first.tag === 0x02) return bitsOf(octets, first);
  const bitString = element(octets, first.end);
  // The first octet of a bit string says how many of its last bits do not count.
  const inner = bitString?.tag === 0x03 ? element(octets, bitString.start + 1) : undefined;
  const modulus = inner?.tag === 0x30 ? element(octets, inner.start) : undefined;
  return modulus?.tag === 0x02 ? bitsOf(octets, modulus) : undefined;
}

interface Element {
  readonly tag: number;
  readonly start: number;
  readonly end: number;
}

function element(octets: readonly number[], at: number): Element | undefined {
  const [tag, short] = [octets[at], octets[at + 1]];
  if (tag === undefined || short === undefined) return undefined;
  const more = short < 0x80 ? 0 : short & 0x7f;
  if (more > 3) return undefined;
  const length = more === 0 ? short : octets.slice(at + 2, at + 2 + more).reduce((sum, one) => sum * 256 + one, 0);
  const start = at + 2 + more;
  return start + length > octets.length ? undefined : { tag, start, end: start + length };
}

function bitsOf(octets: readonly number[], { start, end }: Element): number | undefined {
  let at = start;
  while (at < end && octets[at] === 0) at += 1;
  return at === end ? undefined : (end - at - 1) * 8 + (32 - Math.clz32(octets[at]!));
}
