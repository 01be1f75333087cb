import fc from 'fast-check';
import { isBimi, readBimi } from './bimi';
import { fitsMtaSts, isMtaSts, readMtaStsPolicy, readMtaStsRecord } from './mtaSts';
import { readTlsReports } from './tlsReports';

const problem = (read: { ok: boolean; problem?: string }): string => (read.ok ? 'none' : read.problem!);

describe('the record of a policy for mail', () => {
  it('is read as RFC 8461 §3.1 has it', () => {
    expect(readMtaStsRecord('v=STSv1; id=20160831085700Z;')).toEqual({ ok: true, id: '20160831085700Z' });
    expect(readMtaStsRecord('v=STSv1;id=1')).toEqual({ ok: true, id: '1' });
  });

  it.each([
    ['v=STSv1', /no id/],
    ['v=STSv1; id=2026-01-01', /letters and digits/],
    [`v=STSv1; id=${'1'.repeat(33)}`, /at most 32/],
    ['v=stsv1; id=1', /first/],
    ['id=1; v=STSv1', /first/],
  ])('%s is told in words', (text, words) => expect(problem(readMtaStsRecord(text))).toMatch(words));

  it('is told from other texts', () => {
    expect(['v=STSv1; id=1', 'v=stsv1', 'v = STSv1;'].map(isMtaSts)).toEqual([true, true, true]);
    expect(['v=STSv10; id=1', 'x v=STSv1', ''].map(isMtaSts)).toEqual([false, false, false]);
  });
});

describe('a policy for mail', () => {
  const PAGE = ['version: STSv1', 'mode: enforce', 'mx: mail.zone.test', 'mx: *.post.test', 'mx: Backup.zone.test.', 'max_age: 604800', ''];

  it('is read as RFC 8461 §3.2 has it, whatever ends its lines and whatever else stands there', () => {
    const read = { ok: true, mode: 'enforce', mx: ['mail.zone.test', '*.post.test', 'backup.zone.test'], maxAge: 604_800 };
    expect(readMtaStsPolicy(PAGE.join('\r\n'))).toEqual(read);
    expect(readMtaStsPolicy([...PAGE, 'later: x', 'no pair', 'max_age: 1'].join('\n'))).toEqual(read);
  });

  it.each([
    ['', /version/],
    ['<html>not found</html>', /version/],
    ['version: STSv1\nmode: strict\nmax_age: 1\nmx: a.test', /mode/],
    ['version: STSv1\nmode: enforce\nmx: a.test', /max_age/],
    ['version: STSv1\nmode: enforce\nmax_age: 99999999\nmx: a.test', /max_age/],
    ['version: STSv1\nmode: enforce\nmax_age: 1', /no mail host/],
    ['version: STSv1\nmode: enforce\nmax_age: 1\nmx: a.*.test', /a\.\*\.test/],
    ['version: STSv1\nmode: enforce\nmax_age: 1\nmx: 10 a.test', /10 a\.test/],
  ])('that is none is told in words: %j', (text, words) => expect(problem(readMtaStsPolicy(text))).toMatch(words));

  it('names mail hosts, of wildcards those one label below (RFC 8461 §4.1)', () => {
    const mx = ['mail.zone.test', '*.post.test'];
    expect(['mail.zone.test.', 'MAIL.zone.test', 'mx1.post.test.'].map((host) => fitsMtaSts(mx, host))).toEqual([true, true, true]);
    expect(['post.test.', 'a.mx1.post.test.', 'zone.test.', 'xmail.zone.test', 'test'].map((host) => fitsMtaSts(mx, host))).toEqual([
      false,
      false,
      false,
      false,
      false,
    ]);
  });

  it('fits a wildcard just where another label count and suffix say so', () => {
    const label = fc.stringMatching(/^[a-z]{1,3}$/);
    fc.assert(
      fc.property(fc.array(label, { minLength: 1, maxLength: 4 }), fc.array(label, { minLength: 1, maxLength: 3 }), (host, rest) => {
        const wanted = host.length === rest.length + 1 && rest.every((one, index) => one === host[index + 1]);
        expect(fitsMtaSts([`*.${rest.join('.')}`], `${host.join('.')}.`)).toBe(wanted);
      }),
    );
  });
});

describe('other policies of mail', () => {
  it('say where reports about TLS go (RFC 8460 §3)', () => {
    expect(readTlsReports('v=TLSRPTv1; rua=mailto:tls@post.test,https://Reports.test/x')).toEqual({ ok: true, to: ['post.test', 'reports.test'] });
    expect(problem(readTlsReports('v=TLSRPTv1;'))).toMatch(/rua/);
    expect(problem(readTlsReports('v=TLSRPTv1; rua=post.test'))).toMatch(/neither/);
  });

  it('say where the mark of a sender is', () => {
    expect(readBimi('v=BIMI1; l=https://files.test/mark.svg; a=https://files.test/mark.pem')).toEqual({
      ...{ ok: true, mark: 'https://files.test/mark.svg', evidence: 'https://files.test/mark.pem' },
    });
    expect(readBimi('v=BIMI1; l=; a=;')).toEqual({ ok: true, mark: '', evidence: '' });
    expect(problem(readBimi('v=BIMI1; l=http://files.test/mark.svg'))).toMatch(/HTTPS/);
    expect(problem(readBimi('v=BIMI1; a='))).toMatch(/where the mark is/);
    expect(isBimi('v=BIMI10; l=')).toBe(false);
  });

  it('never throw, whatever stands there', () => {
    const start = fc.constantFrom('', 'v=STSv1; id=', 'version: STSv1\nmode: enforce\nmax_age: 1\nmx: ', 'v=TLSRPTv1; rua=', 'v=BIMI1; l=');
    fc.assert(
      fc.property(start, fc.string({ maxLength: 300, unit: 'binary' }), (before, text) => {
        const all = before + text;
        for (const read of [readMtaStsRecord, readMtaStsPolicy, readTlsReports, readBimi]) expect(typeof read(all).ok).toBe('boolean');
        expect(typeof fitsMtaSts([all], text)).toBe('boolean');
      }),
      { numRuns: 400 },
    );
  });
});
