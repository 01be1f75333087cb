import { Name } from '../../dns/name';
import { Fronting } from '../../hosts/fronting';
import { checkInput, planLine } from '../../testing/planLine';
import { overlaid } from '../rowWords';
import { Remark } from './check';
import { checkRulings } from './index';

const ZONE = Name.parse('zone.test.');
const STANDS_IN = '192.0.2.1';

function said(lines: readonly string[], fronting: Readonly<Record<string, Fronting>> = {}, standIn = STANDS_IN): Remark[] {
  const edge = { host: 'Edge DNS', fronting: new Map(Object.entries(fronting)), how: 'unknown' as const, standIn };
  const rulings = lines.map((line) => planLine(ZONE, line));
  return checkRulings({ ...checkInput(ZONE, rulings), edge }).filter(({ code }) => code === 'stand-in' || code === 'special-address');
}

describe('a redirect that lives at the edge of the DNS host', () => {
  const dropped = ['drop @ A 198.51.100.80 !', 'carry www A 192.0.2.9'];

  it('asks for a record that stands in, for the spelling that was answered and is not planned', () => {
    const [remark, ...more] = said(dropped);
    expect(more).toEqual([]);
    expect(remark).toMatchObject({
      weight: 'look',
      owner: 'zone.test.',
      type: 'A',
      text: expect.stringMatching(/edge of Edge DNS .* to www\.zone\.test/) as string,
    });
    expect(remark!.fixes).toMatchObject([{ rows: [{ owner: 'zone.test.', type: 'A', row: { planned: { data: [STANDS_IN] } } }] }]);
    expect(said(['carry @ A 192.0.2.9', 'drop www CNAME zone.test. !'])).toMatchObject([{ owner: 'www.zone.test.', type: 'CNAME' }]);
  });

  it('is content once that stands there and is fronted, and the fix brings that about', () => {
    const rulings = dropped.map((line) => planLine(ZONE, line));
    const [remark] = said(dropped);
    const after = overlaid(
      rulings.map((row, index) => ({ ...row, id: String(index), decidedBy: null })),
      remark!.fixes[0]!.rows.map(({ row }) => ({ id: '0', row, by: 'a' })),
    );
    const edge = { host: 'Edge DNS', how: 'unknown' as const, standIn: STANDS_IN };
    const of = (fronting: ReadonlyMap<string, Fronting>): string[] =>
      checkRulings({ ...checkInput(ZONE, after), edge: { ...edge, fronting } }).flatMap(({ code, text }) => (code === 'stand-in' ? [text] : []));
    expect(of(new Map([['zone.test.', 'on']]))).toEqual([]);
    expect(of(new Map([['zone.test.', 'off']]))).toEqual([expect.stringMatching(/have .* answer this name with its own addresses/)]);
  });

  it.each([
    ['a host that needs none', dropped, ''],
    ['both spellings planned', ['carry @ A 192.0.2.9', 'carry www A 192.0.2.9'], STANDS_IN],
    ['a spelling that was never answered', ['carry www A 192.0.2.9'], STANDS_IN],
    ['neither spelling planned', ['drop @ A 198.51.100.80 !', 'drop www A 198.51.100.80 !'], STANDS_IN],
    ['a wildcard that answers for it', ['drop www A 198.51.100.80 !', 'carry @ A 192.0.2.9', 'carry * A 192.0.2.9'], STANDS_IN],
  ])('says nothing of %s', (_what, lines, standIn) => {
    expect(said(lines, {}, standIn)).toEqual([]);
  });

  it('is no address within a network, whatever stands in', () => {
    const lines = ['new @ A 10.0.0.1', 'carry www A 192.0.2.9'];
    expect(said(lines, { 'zone.test.': 'on' }, '10.0.0.1')).toEqual([]);
    expect(said(lines, { 'zone.test.': 'on' }, '')).toMatchObject([{ code: 'special-address' }]);
  });
});
