import { Name } from '../dns/name';
import { Ruling } from '../rebuild/ruling';
import { PageLook } from '../survey/website';
import { pageFaults, pagesPlanned } from './pageFaults';

const look = (start: string, more: Partial<PageLook>): PageLook => ({ start, hops: [], problem: null, keepsPath: null, page: null, ...more });
const hop = (url: string, status: number, problem: string | null = null): PageLook['hops'][number] => ({
  ...{ url, address: '192.0.2.1', status },
  certificate: url.startsWith('https:') ? { names: [], issuer: 'Lab', from: 0, until: 1, fingerprint: '00', problem } : null,
});

describe('pages with nothing to hold them against', () => {
  it('are broken where they do not answer, say that there is nothing, or have a certificate that is refused; each once', () => {
    const [plain, secure, www] = ['http://reed.example/', 'https://reed.example/', 'https://www.reed.example/'] as const;
    expect(
      pageFaults([
        look(plain, { hops: [hop(plain, 301), hop(secure, 404)] }),
        look(secure, { hops: [hop(secure, 404)] }),
        look(www, { hops: [hop(www, 200, 'it is for other names')] }),
        look('https://shop.reed.example/', { problem: 'it has no address' }),
      ]),
    ).toEqual([
      { weight: 'broken', pages: [plain, secure], text: 'answers 404' },
      { weight: 'broken', pages: [www], text: 'a browser refuses the certificate: it is for other names' },
      { weight: 'broken', pages: ['https://shop.reed.example/'], text: 'does not answer: it has no address' },
    ]);
    expect(pageFaults([look(plain, { hops: [hop(plain, 301), hop(secure, 200)] })])).toEqual([]);
  });

  it('are those spellings that the plan leads somewhere', () => {
    const row = (owner: string, type: string, planned = true): Ruling => {
      const set = { owner, type, ttl: 60, data: ['x'] };
      return { owner, type, ruling: planned ? 'new' : 'drop', found: planned ? undefined : set, planned: planned ? set : undefined, reason: '' };
    };
    const rows = [row('reed.example.', 'A'), row('www.reed.example.', 'CNAME', false), row('Shop.reed.example.', 'AAAA'), row('www.shop.reed.example.', 'TXT')];
    expect(pagesPlanned(Name.parse('reed.example.'), { kind: 'whole' }, rows)).toEqual(['reed.example/']);
    expect(pagesPlanned(Name.parse('reed.example.'), { kind: 'names', names: ['shop.reed.example', 'www.shop.reed.example'] }, rows)).toEqual([
      'shop.reed.example/',
    ]);
  });
});
