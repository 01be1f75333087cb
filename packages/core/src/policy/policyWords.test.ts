import fc from 'fast-check';
import { quotedText } from '../dns/quotedText';
import { policyWords } from './policyWords';

const txt = (owner: string, ...texts: string[]) => ({ owner: `${owner}zone.test.`, type: 'TXT', ttl: 60, data: texts.map(quotedText) });

describe('what a policy says, in words', () => {
  it.each<[string, string[]]>([
    [
      'v=spf1 mx a:www.zone.test/28 include:spf.post.test ip4:192.0.2.0/24 -all',
      [
        'SPF: the MX of the domain itself, the address of www.zone.test and its /28, whom spf.post.test names, 192.0.2.0/24 may send, everybody else fails; 3 of 10 lookups.',
      ],
    ],
    ['v=spf1 -all', ['SPF: nobody may send, everybody else fails.']],
    ['v=spf1 a/24 ~all', ['SPF: the address of the domain itself and its /24 may send, everybody else fails softly; 1 of 10 lookups.']],
    ['v=spf1 redirect=_spf.post.test', ['SPF: nobody may send, for the rest see _spf.post.test; 1 of 10 lookups.']],
    ['v=spf1 mx', ['SPF: the MX of the domain itself may send, of everybody else it says nothing; 1 of 10 lookups.']],
    ['hello', []],
  ])('%s', (text, words) => {
    expect(policyWords(txt('', text))).toEqual(words);
  });

  it('DMARC, keys of signatures, and who makes certificates', () => {
    expect(policyWords(txt('_dmarc.', 'v=DMARC1; p=quarantine; rua=mailto:a@post.test'))).toEqual([
      'DMARC: forged mail is put aside; reports go to post.test.',
    ]);
    expect(policyWords(txt('_dmarc.', 'v=DMARC1; p=none'))).toEqual(['DMARC: forged mail is only reported; no reports are sent.']);
    expect(policyWords(txt('s._domainkey.', 'v=DKIM1; p='))).toEqual(['Key of signatures: revoked.']);
    expect(policyWords(txt('s._domainkey.', 'v=DKIM1; p=AAA'))[0]).toMatch(/cut/);
    const caa = (...data: string[]) => policyWords({ owner: 'zone.test.', type: 'CAA', ttl: 60, data });
    expect(caa('0 issue "certs.test"', '0 issue "other.test; a=b"', '0 iodef "mailto:x@y.test"')).toEqual(['Certificates by certs.test, other.test alone.']);
    expect(caa('0 issue ";"')).toEqual(['Certificates by nobody.']);
    expect(caa('0 issuewild "certs.test"')).toEqual(['Certificates by anybody; of wildcards by certs.test.']);
    expect(caa('0 iodef "mailto:x@y.test"')).toEqual([]);
  });

  it('never throws, whatever stands there', () => {
    fc.assert(
      fc.property(fc.constantFrom('', '_dmarc.', 's._domainkey.'), fc.string({ maxLength: 400, unit: 'grapheme-ascii' }), (owner, text) => {
        for (const begin of ['', 'v=spf1 ', 'v=DMARC1; ', 'v=DKIM1; ']) policyWords(txt(owner, `${begin}${text}`));
      }),
    );
  });
});
