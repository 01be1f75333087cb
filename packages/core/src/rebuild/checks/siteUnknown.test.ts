import { Name } from '../../dns/name';
import { checkInput, planLine } from '../../testing/planLine';
import { CheckedWeb } from '../host';
import { DROPS_PATH } from '../../watch/pageFault';
import { CheckInput } from './check';
import { siteUnknown } from './siteUnknown';

const ZONE = Name.parse('canoes.test.');
const NEW_WEB = { name: 'Reed Sites', addresses: ['203.0.113.80'] };
const said = (faults: CheckInput['faults'], lines: string[], newWeb: CheckedWeb | null = NEW_WEB): string[] =>
  siteUnknown(
    checkInput(
      ZONE,
      lines.map((line) => planLine(ZONE, line)),
      { faults, newWeb: newWeb ?? undefined },
    ),
  ).map(({ owner, type, text }) => `${owner} ${type}: ${text}`);

describe('a spelling that the new web host does not know', () => {
  const MOVED = ['repoint @ A 192.0.2.80 > 203.0.113.80', 'repoint www CNAME canoes.test. > sites.reed.test.'];
  const pages = ['http://www.canoes.test/', 'https://www.canoes.test/'];

  it('is told at its row, once however many of its pages are broken', () => {
    expect(said([{ pages, text: 'answers 404, before 200' }], MOVED)).toEqual([
      'www.canoes.test. CNAME: Where this leads, http://www.canoes.test/ answers 404, before 200. ' +
        'If Reed Sites does not know the name yet, have it added there: an alias is no redirect.',
    ]);
    expect(said([{ pages: ['https://canoes.test/'], text: 'a browser refuses the certificate: it is for other names' }], MOVED)).toHaveLength(1);
    expect(said([{ pages, text: 'answers 404' }], MOVED, null)[0]).toMatch(/If the new web host does not know the name yet/);
  });

  it('is not where it stays, or nothing is broken there', () => {
    expect(said([{ pages, text: 'answers 404' }], [MOVED[0]!, 'carry www CNAME canoes.test.'])).toEqual([]);
    expect(said([{ pages: ['https://elsewhere.test/'], text: 'answers 404' }], MOVED)).toEqual([]);
    expect(said([], MOVED)).toEqual([]);
    // Of no name: nobody answers, or with an error of the site itself.
    expect(said([{ pages, text: 'does not answer: timed out' }], MOVED)).toEqual([]);
    expect(said([{ pages, text: 'answers 503, before 200' }], MOVED)).toEqual([]);
  });

  it('is another thing than a redirect that drops the path', () => {
    expect(said([{ pages, text: DROPS_PATH }], MOVED)).toEqual([
      'www.canoes.test. CNAME: Where this leads, http://www.canoes.test/ redirects every page to the front page: have Reed Sites keep the path.',
    ]);
  });
});
