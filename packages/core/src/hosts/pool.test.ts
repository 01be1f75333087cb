import { isOfPool } from './pool';

describe('a host that gives each domain nameservers of its own', () => {
  const KNOWN = ['ns1.dns.quillmere.example.', 'ns4.DNS.quillmere.example.'];

  it.each([
    ['ns7.dns.quillmere.example.', true],
    ['NS7.quillmere.EXAMPLE', true],
    ['ns1.dns.oldquay.example.', false],
    ['quillmere.example.oldquay.example.', false],
    // Nobody owns what everybody registers below.
    ['example.', false],
    ['', false],
  ])('%s: %s', (server, is) => expect(isOfPool(server, KNOWN)).toBe(is));

  it('is known by nothing where none of its servers is', () => expect(isOfPool('ns7.dns.quillmere.example.', [])).toBe(false));
});
