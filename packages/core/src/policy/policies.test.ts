import fc from 'fast-check';
import { createPublicKey, generateKeyPairSync } from 'node:crypto';
import { DKIM_BITS, readDkimKey } from './dkim';
import { isDmarc, readDmarc } from './dmarc';
import { readSpf } from './spf';

const rsa = (bits: number, type: 'spki' | 'pkcs1' = 'spki'): string =>
  createPublicKey(generateKeyPairSync('rsa', { modulusLength: bits }).privateKey)
    .export({ type, format: 'der' })
    .toString('base64');

describe('an SPF record', () => {
  it.each([
    // The examples of RFC 7208 §3, §A.
    ['v=spf1 +mx a:colo.mail.test/28 -all', '+mx a:colo.mail.test/28 -all', 2, true],
    ['v=spf1 a:mail.test -all', 'a:mail.test -all', 1, true],
    ['v=spf1 mx/24 -all', 'mx/24 -all', 1, true],
    ['v=spf1 redirect=_spf.mail.test', 'redirect=_spf.mail.test', 1, true],
    ['V=SPF1 IP4:192.0.2.0/24 ?all', 'ip4:192.0.2.0/24 ?all', 0, true],
    ['v=spf1 ip6:2001:db8::/32 exists:%{i}.x.test', 'ip6:2001:db8::/32 exists:%{i}.x.test', 1, false],
    ['v=spf1', '', 0, false],
  ])('%s', (text, terms, lookups, ends) => {
    const read = readSpf(text)!;
    const shown = read.terms.map(({ kind, qualifier, name, value }) =>
      kind === 'modifier'
        ? `${name}=${value}`
        : `${qualifier === '+' && !/\+/.test(text) ? '' : qualifier}${name}${value === '' ? '' : value.startsWith('/') ? value : `:${value}`}`,
    );
    expect({ ...read, terms: shown.join(' ').replace('+a:', 'a:') }).toEqual({ terms, unread: [], lookups, ends });
  });

  it.each(['v=spf10 -all', 'spf1 -all', ' v=spf1 -all', 'v=spf1-all'])('is not %s', (text) => {
    expect(readSpf(text)).toBeUndefined();
  });

  it.each([
    ['v=spf1 include -all', ['include']],
    ['v=spf1 ip4 ipv4:192.0.2.1 all:x', ['ip4', 'ipv4:192.0.2.1', 'all:x']],
    ['v=spf1 inculde:x.test -all', ['inculde:x.test']],
  ])('names what cannot be read: %s', (text, unread) => {
    expect(readSpf(text)!.unread).toEqual(unread);
  });
});

describe('a DKIM key', () => {
  it('tells the bits of an RSA key, whichever way it is wrapped', () => {
    for (const [bits, type] of [
      [1024, 'spki'],
      [2048, 'spki'],
      [2048, 'pkcs1'],
      [768, 'spki'],
    ] as const)
      expect([bits, type, readDkimKey(`v=DKIM1; k=rsa; p=${rsa(bits, type)}`)]).toEqual([bits, type, { ok: true, kind: 'rsa', bits, revoked: false }]);
    expect(DKIM_BITS).toBe(1024);
  });

  it('is told cut wherever it is cut, and with a character lost', () => {
    const key = rsa(2048);
    for (let at = 1; at < key.length; at++) expect([at, readDkimKey(`v=DKIM1; p=${key.slice(0, at)}`).ok]).toEqual([at, false]);
    expect(readDkimKey(`p=${key.slice(0, 50)}${key.slice(51)}`).ok).toBe(false);
  });

  it.each<[string, object]>([
    ['p=', { ok: true, revoked: true }],
    [`k=ed25519; p=${Buffer.alloc(32, 7).toString('base64')}`, { ok: true, kind: 'ed25519' }],
    [`k=ed25519; p=${Buffer.alloc(31, 7).toString('base64')}`, { ok: false }],
    ['k=rsa', { ok: false }],
    ['hello', { ok: false }],
    ['k=rsa; v=DKIM1; p=', { ok: false }],
    ['v=DKIM1; p=; p=', { ok: false }],
  ])('%s', (text, expected) => {
    expect(readDkimKey(text)).toMatchObject(expected);
  });
});

describe('a DMARC policy', () => {
  it.each<[string, object]>([
    // RFC 7489 §B.2.
    ['v=DMARC1; p=none; rua=mailto:feedback@zone.test', { ok: true, policy: 'none', reports: ['zone.test'] }],
    ['v=DMARC1; p=Reject; pct=100; ruf=mailto:a@auth.test!10m,mailto:b@zone.test;', { ok: true, policy: 'reject', reports: ['auth.test', 'zone.test'] }],
    ['v=DMARC1; p=block', { ok: false }],
    ['v=DMARC1', { ok: false }],
    ['p=none; v=DMARC1', { ok: false }],
    ['v=DMARC1; p=none; p=reject', { ok: false }],
  ])('%s', (text, expected) => {
    expect(readDmarc(text)).toMatchObject(expected);
    expect(isDmarc('v=DMARC12; p=none')).toBe(false);
  });
});

const WHOLE = rsa(1024);

it('readers never throw and never hang, whatever they are given', () => {
  const piece = fc.constantFrom(
    'v=spf1',
    'v=DMARC1',
    'v=DKIM1',
    ';',
    '=',
    ' ',
    'p=',
    'include:',
    'a/',
    '-all',
    'MIGf',
    '\u0000',
    'ä',
    ':',
    '%{',
    '++',
    '"',
    'x'.repeat(300),
  );
  // Records that are right, with a few of their characters lost, doubled or others.
  const whole = fc.constantFrom(
    'v=spf1 mx a:mail.test/28//64 include:spf.post.test ip4:192.0.2.0/24 ip6:2001:db8::/32 exists:%{i}._spf.post.test ~all',
    `v=DKIM1; k=rsa; h=sha256; t=s; p=${WHOLE}`,
    'v=DMARC1; p=quarantine; sp=reject; adkim=s; pct=50; rua=mailto:a@post.test!10m,mailto:b@else.test; ruf=mailto:c@post.test; fo=1:d',
  );
  const edit = fc.tuple(fc.nat(400), fc.integer({ min: 0, max: 3 }), fc.constantFrom('', ';', '=', ' ', ':', '/', 'A', '\u0000', 'ÿ', '%', '=='));
  const mutated = fc
    .tuple(whole, fc.array(edit, { minLength: 1, maxLength: 6 }))
    .map(([text, edits]) =>
      edits.reduce<string>((now, [at, gone, put]) => now.slice(0, at % now.length) + put + now.slice((at % now.length) + gone), text || ' '),
    );
  fc.assert(
    fc.property(
      fc.oneof(
        fc.string(),
        fc.array(piece, { maxLength: 40 }).map((all) => all.join('')),
        mutated,
      ),
      (text) => {
        readSpf(text);
        readDkimKey(text);
        readDmarc(text);
      },
    ),
    { numRuns: 1_000_000 },
  );
  for (const text of [
    'v=spf1 '.padEnd(200_000, 'a:'),
    'v=spf1 '.padEnd(200_000, ' '),
    'p='.padEnd(200_000, 'A'),
    'v=DMARC1;'.padEnd(200_000, 'a=;'),
    ';'.repeat(200_000),
  ]) {
    readSpf(text);
    readDkimKey(text);
    readDmarc(text);
  }
});
