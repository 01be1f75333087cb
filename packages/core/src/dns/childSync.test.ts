import { childKeyProblems, keyTag } from './childSync';
import { parseRdata } from './rdata';
import { typeCode } from './typeNames';

const data = (type: string, text: string): Uint8Array => parseRdata(typeCode(type)!, text);
const KEY = data(
  'DNSKEY',
  '256 3 5 AQPSKmynfzW4kyBv015MUG2DeIQ3Cbl+BBZH4b/0PY1kxkmvHjcZc8nokfzj31GajIQKY+5CptLr3buXA10hWqTkF7H6RfoRqXQeogmMHfpftf6zMv1LyBUgia7za6ZEzOJBOztyvhjL742iU/TpPSEDhm2SNKLijfUppn1UaNvv4w==',
);

describe('keys that a child offers its parent', () => {
  // The key of RFC 4034 §2.3; the signature of §3.3 was made with it and names its tag.
  it('have the tag that RFC 4034 appendix B computes', () => expect(keyTag(KEY)).toBe(2642));

  it.each<[string, string[], string[], string[], string[]]>([
    ['nothing', [], [], [], []],
    ['a request to delete alone', [], ['0 0 0 00'], ['0 3 0 AA=='], []],
    ['a request to delete beside another', ['257 3 8 AQID'], ['0 0 0 00', `1 8 2 ${'AA'.repeat(32)}`], [], ['error CDS']],
    ['no key of the algorithm', ['257 3 8 AQID'], [], ['257 3 13 AQID'], ['error CDNSKEY']],
    ['another key of the algorithm', ['257 3 8 AQID'], [], ['257 3 8 AQIE'], ['warning CDNSKEY']],
    ['the key itself', ['257 3 8 AQID'], [], ['257 3 8 AQID'], []],
  ])('%s', (_what, keys, cds, cdnskeys, wanted) =>
    expect(
      childKeyProblems(
        keys.map((text) => data('DNSKEY', text)),
        cds.map((text) => data('CDS', text)),
        cdnskeys.map((text) => data('CDNSKEY', text)),
      ).map((one) => `${one.severity} ${one.type}`),
    ).toEqual(wanted),
  );
});
