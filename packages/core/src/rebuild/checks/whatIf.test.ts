import fc from 'fast-check';
import { Name } from '../../dns/name';
import { checkInput, planLine } from '../../testing/planLine';
import { Ruling } from '../ruling';
import { checkRulings } from '.';
import { RowAsIf, whatIf } from './whatIf';

const ZONE = Name.parse('zone.test.');
const row = (line: string): Ruling => planLine(ZONE, line);
const asIf = (line: string): RowAsIf => {
  const made = row(line);
  return { owner: made.owner, type: made.type, row: made };
};
const PLAN = ['carry @ A 203.0.113.7', 'carry www A 203.0.113.7', 'carry @ MX 10 mail.zone.test.', 'carry mail A 203.0.113.25', 'drop shop A 203.0.113.8'].map(
  row,
);
const said = (rows: readonly RowAsIf[]): { comes: string[]; goes: string[] } => {
  const { comes, goes } = whatIf(checkRulings, checkInput(ZONE, PLAN), rows);
  return { comes: comes.map((one) => `${one.owner} ${one.code}`), goes: goes.map((one) => `${one.owner} ${one.code}`) };
};

describe('what rows would bring', () => {
  it('is said of a row that is not there yet, and of others that it touches', () => {
    expect(said([asIf('new www CNAME sites.new.test.')]).comes).toContain('www.zone.test. alias-beside-data');
    expect(said([asIf('drop mail A 203.0.113.25')]).comes).toContain('zone.test. mail-target-gone');
  });

  it('is nothing where nothing is otherwise, whatever the case of a name', () => {
    expect(said([])).toEqual({ comes: [], goes: [] });
    expect(said(PLAN.map((one) => ({ owner: one.owner.toUpperCase(), type: one.type, row: one })))).toEqual({ comes: [], goes: [] });
  });

  it('tells what would no longer be said, also where a row is taken out', () => {
    const lame = [...PLAN, row('new www CNAME sites.new.test.')];
    const { goes, comes } = whatIf(checkRulings, checkInput(ZONE, lame), [{ owner: 'www.zone.test.', type: 'CNAME', row: undefined }]);
    expect([goes.map((one) => one.code), comes]).toEqual([expect.arrayContaining(['alias-beside-data']) as string[], []]);
  });

  it('is the difference of two plans that were checked whole', () => {
    const lines = [
      'drop www A 203.0.113.7',
      'repoint www A 203.0.113.7 > 192.168.1.1',
      'new x CNAME x.zone.test.',
      'new x A 203.0.113.9',
      'drop @ MX 10 mail.zone.test.',
      'new _dmarc TXT "p=none"',
    ];
    fc.assert(
      fc.property(fc.uniqueArray(fc.constantFrom(...lines), { selector: (line) => line.split(' ').slice(1, 3).join(' ') }), (some) => {
        const edits = some.map(asIf);
        const keys = new Set(edits.map((one) => `${one.owner} ${one.type}`));
        const after = [...PLAN.filter((one) => !keys.has(`${one.owner} ${one.type}`)), ...edits.map((one) => one.row!)];
        const texts = (rulings: readonly Ruling[]): string[] =>
          checkRulings(checkInput(ZONE, rulings)).map((one) => `${one.owner} ${one.type} ${one.code} ${one.text}`);
        const { comes, goes } = whatIf(checkRulings, checkInput(ZONE, PLAN), edits);
        const [was, is] = [texts(PLAN), texts(after)];
        const told = (all: typeof comes): string[] => all.map((one) => `${one.owner} ${one.type} ${one.code} ${one.text}`).sort();
        expect(told(comes)).toEqual(is.filter((one) => !was.includes(one)).sort());
        expect(told(goes)).toEqual(was.filter((one) => !is.includes(one)).sort());
      }),
    );
  });
});
