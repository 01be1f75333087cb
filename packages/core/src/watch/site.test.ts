import { Name } from '../dns/name';
import { PageLook } from '../survey/website';
import { ruling } from '../testing/moving';
import { pageChanges } from './pageChanges';
import { NO_WISH, pagesWished, provisionalOf, siteFaults, spellingsOf } from './site';

const MAIN = 'www.choir.test';
const PROVISIONAL = 'choir.sites.host.test';

/** A look that went through these addresses, the last of which answered. */
function look(urls: string[], more: Partial<PageLook> & { status?: number } = {}): PageLook {
  const { status = 200, ...rest } = more;
  const hops = urls.map((url, index) => ({ url, address: '192.0.2.1', status: index === urls.length - 1 ? status : 301, certificate: null }));
  return { start: urls[0]!, hops, problem: null, keepsPath: urls.length > 1 ? true : null, page: null, ...rest };
}
const told = (looks: PageLook[], switched = false): [string, string, number][] =>
  siteFaults(looks, { main: MAIN, provisional: PROVISIONAL }, switched).map(({ weight, text, pages }) => [weight, text, pages.length]);

describe('the main spelling of a website', () => {
  it('is one of those that the plan leads anywhere', () => {
    const zone = Name.parse('choir.test.');
    const www = ruling('www.choir.test.', 'CNAME', 'new', 300, undefined, ['edge.host.test.']);
    const apex = ruling('choir.test.', 'A', 'repoint', 300, ['192.0.2.1'], ['192.0.2.2']);
    expect(spellingsOf(zone, { kind: 'whole' }, [www, apex])).toEqual(['choir.test', MAIN]);
    expect(spellingsOf(zone, { kind: 'whole' }, [www])).toEqual([MAIN]);
    expect(spellingsOf(zone, { kind: 'names', names: ['shop.choir.test'] }, [www, apex])).toEqual([]);
  });

  it('is where every spelling ends, by one redirect that keeps the path', () => {
    expect(
      told([
        look([`https://${MAIN}/`]),
        look(['https://choir.test/', `https://${MAIN}/`]),
        look(['http://choir.test/', 'https://choir.test/', `https://${MAIN}/`]),
        look([`http://${MAIN}/`, `https://${MAIN}/`]),
      ]),
    ).toEqual([]);
    expect(told([look(['https://choir.test/'])])).toEqual([['broken', 'ends at https://choir.test/, and www.choir.test is the main spelling', 1]]);
    expect(told([look([`https://${MAIN}/`, 'https://choir.test/'])])).toEqual([
      ['broken', 'ends at https://choir.test/, and www.choir.test is the main spelling', 1],
    ]);
    expect(told([look(['https://choir.test/', `https://${MAIN}/`], { keepsPath: false })])[0]).toEqual([
      'broken',
      expect.stringContaining('drops the path'),
      1,
    ]);
    expect(told([look(['https://choir.test/', 'https://choir.test/en', `https://${MAIN}/`])])).toEqual([
      ['otherwise', 'takes 2 redirects to www.choir.test: one is enough', 1],
    ]);
  });

  it('says nothing of pages that others tell of, of other names, or where none is said', () => {
    expect(
      told([look(['https://choir.test/'], { status: 404 }), look(['https://choir.test/'], { problem: 'refused' }), look(['https://shop.choir.test/'])]),
    ).toEqual([]);
    expect(siteFaults([look(['https://choir.test/'])], NO_WISH, true)).toEqual([]);
  });

  it('takes the place of where visitors ended before, and of nothing else', () => {
    const [before, now] = [look(['https://choir.test/']), look(['https://choir.test/', `https://${MAIN}/`])];
    expect(pageChanges([before], [now]).map(({ text }) => text)).toEqual([`ends at https://${MAIN}/, before at https://choir.test/`]);
    expect(pageChanges([before], [now], MAIN)).toEqual([]);
    // Another page of it, and another name that ends there, are told all the same.
    expect(pageChanges([look(['https://choir.test/', 'https://choir.test/en'])], [now], MAIN)).toHaveLength(1);
    const shop = look(['https://shop.choir.test/']);
    expect(pageChanges([shop], [look(['https://shop.choir.test/', `https://${MAIN}/`])], MAIN)).toMatchObject([
      { text: expect.stringMatching(/^ends at/) as string },
    ]);
    // And so is what stands there.
    const page = (robots: string | undefined): PageLook['page'] => ({
      ...{ title: 'Choir', fingerprint: 'a', octets: 9, cut: false },
      headers: robots === undefined ? {} : { 'x-robots-tag': robots },
    });
    expect(pageChanges([{ ...before, page: page(undefined) }], [{ ...now, page: page('noindex') }], MAIN)).toMatchObject([
      { weight: 'broken', text: expect.stringContaining('search engines are told to leave it out') as string },
    ]);
    expect(pageChanges([before], [look(['https://choir.test/', `https://${MAIN}/`], { status: 500 })], MAIN)).toMatchObject([
      { weight: 'broken', text: 'answers 500, before 200' },
      { text: expect.stringContaining('ends at') as string },
    ]);
  });
});

describe('the provisional address of a website', () => {
  it('is formed as its host does', () => {
    expect(provisionalOf('{label}.sites.host.test', 'choir.test')).toBe(PROVISIONAL);
    expect(provisionalOf('{zone}.host.test', 'choir.test')).toBe('choir.test.host.test');
    expect(provisionalOf('', 'choir.test')).toBeNull();
  });

  it('leads to the main spelling once the domain does, and is left alone before', () => {
    const own = look([`https://${PROVISIONAL}/`]);
    expect(told([own])).toEqual([]);
    expect(told([own], true)).toEqual([['otherwise', expect.stringMatching(/still a site of its own.* lead to www\.choir\.test/), 1]]);
    expect(told([look([`https://${PROVISIONAL}/`, `https://${MAIN}/`])], true)).toEqual([]);
  });

  it('is looked at beside the spellings', () => {
    expect(pagesWished({ main: MAIN, provisional: PROVISIONAL }, ['choir.test', MAIN, 'shop.choir.test'])).toEqual([
      'choir.test/',
      `${MAIN}/`,
      `${PROVISIONAL}/`,
    ]);
    expect(pagesWished(NO_WISH, ['choir.test'])).toEqual([]);
  });
});
