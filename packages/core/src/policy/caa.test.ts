import fc from 'fast-check';
import { mayIssue, readCaa } from './caa';

/** The examples of RFC 8659 §4.2 to §4.4, with the answer that the text gives. */
const CERTS = { 'ca1.example.net': 'ca1', 'ca2.example.org': 'ca2' } as const;
const who = (data: string[], wild: boolean): string[] =>
  Object.entries(CERTS).flatMap(([issuer, name]) => (mayIssue(readCaa(data), [issuer], wild) ? [name] : []));

describe('CAA', () => {
  it.each([
    ['nobody but one', ['0 issue "ca1.example.net"'], ['ca1'], ['ca1']],
    ['with an account', ['0 issue "ca1.example.net; account=230123"'], ['ca1'], ['ca1']],
    ['nobody at all', ['0 issue ";"'], [], []],
    ['a value that is no name', ['0 issue "%%%%%"'], [], []],
    ['both', ['0 issue "ca1.example.net"', '0 issue "ca2.example.org"'], ['ca1', 'ca2'], ['ca1', 'ca2']],
    ['nobody, and one: what lets one counts', ['0 issue ";"', '0 issue "ca2.example.org"'], ['ca2'], ['ca2']],
    ['wildcards by another', ['0 issue "ca1.example.net"', '0 issuewild "ca2.example.org"'], ['ca1'], ['ca2']],
    ['wildcards alone are bound', ['0 issuewild ";"'], ['ca1', 'ca2'], []],
    ['whom to tell', ['0 iodef "mailto:security@example.com"'], ['ca1', 'ca2'], ['ca1', 'ca2']],
    ['what has to be known and is not', ['0 issue "ca1.example.net"', '128 tbs "Unknown"'], [], []],
    ['tags in capitals', ['0 ISSUE "CA1.example.net"'], ['ca1'], ['ca1']],
    ['nothing', [], ['ca1', 'ca2'], ['ca1', 'ca2']],
  ] as [string, string[], string[], string[]][])('%s', (_, data, names, wild) => {
    expect([who(data, false), who(data, true)]).toEqual([names, wild]);
  });

  it('is read whatever it holds', () => {
    fc.assert(
      fc.property(
        fc.array(fc.string({ unit: 'binary', maxLength: 300 }), { maxLength: 5 }),
        (data) => mayIssue(readCaa(data), ['a.test'], false) !== undefined,
      ),
    );
    expect(readCaa([`0 issue "${'a-'.repeat(100_000)}"`]).issue).toEqual(['']);
  });
});
