import { Name } from '../../dns/name';
import { checkInput, planLine } from '../../testing/planLine';
import { CheckedWeb } from '../host';
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
    expect(said([{ pages: ['https://canoes.test/'], text: 'does not answer: timed out' }], MOVED)).toHaveLength(1);
    expect(said([{ pages, text: 'answers 404' }], MOVED, null)[0]).toMatch(/If the name is not known there yet, have it added: an alias/);
  });

  it('is not where it stays, or nothing is broken there', () => {
    expect(said([{ pages, text: 'answers 404' }], [MOVED[0]!, 'carry www CNAME canoes.test.'])).toEqual([]);
    expect(said([{ pages: ['https://elsewhere.test/'], text: 'answers 404' }], MOVED)).toEqual([]);
    expect(said([], MOVED)).toEqual([]);
  });
});
