import { PageLook } from '../survey/website';
import { holdingPages } from './holdingPages';
import { pageFault } from './pageFault';

const look = (start: string, title: string | null): PageLook => ({
  ...{ start, hops: [{ url: start, address: '192.0.2.1', status: 200, certificate: null }], problem: null, keepsPath: null },
  page: { title, fingerprint: '00', octets: 9, cut: false, headers: {} },
});

describe('the page of a host for domains that it does not know', () => {
  it('is told by its title, each once with all its pages, though it answers 200', () => {
    const looks = [
      look('http://reed.example/', 'No  site here – Larkspur'),
      look('https://reed.example/', 'No  site here – Larkspur'),
      look('https://a.example/', 'Reed beds'),
    ];
    const found = holdingPages(looks, ['no site HERE']);
    expect(found).toEqual([
      {
        weight: 'broken',
        pages: ['http://reed.example/', 'https://reed.example/'],
        text: 'shows its page for domains that it does not know: “No  site here – Larkspur”',
      },
    ]);
    expect(pageFault(found[0]!.text)).toBe('unknown');
  });

  it('is no page without a title, none that was not looked at, and nothing where nothing is noted', () => {
    const silent = { ...look('https://reed.example/', null), page: null, problem: 'no answer' };
    expect(holdingPages([look('https://reed.example/', null), silent], ['no site'])).toEqual([]);
    expect(holdingPages([look('https://reed.example/', 'Nothing yet')], [])).toEqual([]);
    expect(holdingPages([look('https://reed.example/', 'Nothing yet')], ['  '])).toEqual([]);
  });

  it('is told by what such pages are called where nobody noted anything, unless the website was called so before', () => {
    const now = [look('https://reed.example/', 'It works!'), look('https://www.reed.example/', 'Reed beds')];
    const [found, ...more] = holdingPages(now, []);
    expect([found!.pages, found!.text, more]).toEqual([['https://reed.example/'], 'shows a page as hosts show it for unused domains: “It works!”', []]);
    expect(pageFault(found!.text)).toBe('unknown');
    expect(holdingPages(now, [], [look('https://reed.example/', 'it  works!')])).toEqual([]);
  });
});
