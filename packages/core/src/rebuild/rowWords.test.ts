import fc from 'fast-check';
import { Name } from '../dns/name';
import { ruling } from '../testing/moving';
import { LedgerRow, RowDecision, editRow, editRows } from './ledgerRow';
import { RowWord, decidedRows, grouped, overlaid, rowsOf } from './rowWords';

const zone = Name.parse('zone.test.');
const row = (id: string, ...more: Parameters<typeof ruling>): LedgerRow => ({ ...ruling(...more), id, decidedBy: null });
const www = row('1', 'www.zone.test.', 'A', 'repoint', 3600, ['192.0.2.1'], ['192.0.2.2']);
const mx = row('2', 'zone.test.', 'MX', 'carry', 3600, ['10 mail.zone.test.'], ['10 mail.zone.test.']);
const fresh = row('3', 'new.zone.test.', 'TXT', 'new', 300, undefined, ['"x"']);

describe('rows that a decision is about', () => {
  it('are told from a decision about one, and from others', () => {
    const rows = [{ id: '1', row: null }];
    expect(rowsOf({ kind: 'rulings', subject: '', value: { rows } })).toEqual(rows);
    expect(rowsOf({ kind: 'ruling', subject: '1', value: { row: null } })).toEqual(rows);
    expect(rowsOf({ kind: 'push', subject: '', value: null })).toEqual([]);
  });

  it('shows what was decided last, in its place; what was added comes last', () => {
    const rows = overlaid(
      [www, mx],
      [
        { id: '1', row: { ...www, ruling: 'drop', planned: undefined }, by: 'a' },
        { id: '9', row: fresh, by: 'b' },
        { id: '2', row: null, by: 'b' },
        { id: '1', row: { ...www, ruling: 'carry', planned: www.found }, by: 'b' },
      ],
    );
    expect(rows.map((one) => [one.id, one.ruling, one.decidedBy])).toEqual([
      ['1', 'carry', 'b'],
      ['9', 'new', 'b'],
    ]);
  });

  it('are said together where the same is said of them, and by themselves where they are taken out', () => {
    const edited = editRows(zone, [www, fresh, mx], { ruling: 'drop' });
    expect(edited.ok && grouped(edited.rows)).toEqual({ groups: [{ ruling: 'drop', ids: ['1', '2'] }], rows: [{ id: '3', row: null }] });
  });

  it('are gone where what brought a row into the plan was taken back since', () => {
    const word: RowWord = { ruling: 'drop' };
    expect(overlaid([mx], [{ id: '9', row: word, by: 'a' }])).toEqual([mx]);
    const gone = { id: '1', row: { ...www, ruling: 'new', found: undefined } as RowDecision, by: 'a' };
    expect(overlaid([www], [gone, { id: '1', row: word, by: 'b' }])).toEqual([]);
    // Nothing is found any more that could be carried: what was planned instead stands.
    expect(overlaid([www], [gone, { id: '1', row: { ruling: 'carry' }, by: 'b' }])).toMatchObject([{ ruling: 'new', planned: { data: ['192.0.2.2'] } }]);
  });

  const proposed = [www, mx, fresh, row('4', 'a.zone.test.', 'A', 'carry', 60, ['192.0.2.7'], ['192.0.2.7'])];
  const edits = fc.record({
    ids: fc.subarray(['1', '2', '3', '4'], { minLength: 1 }),
    edit: fc.oneof(
      fc.constant({ ruling: 'carry' as const }),
      fc.constant({ ruling: 'drop' as const }),
      fc.record({ ruling: fc.constant('repoint' as const), data: fc.constantFrom('192.0.2.8', '"y"', '20 relay.test.'), ttl: fc.constantFrom('60', '300') }),
    ),
    alone: fc.boolean(),
  });

  it('make the same plan whether they are said together or each whole, and some of them the same as all', () => {
    fc.assert(
      fc.property(fc.array(edits, { maxLength: 12 }), fc.subarray(['1', '2', '3', '4', '5']), (acts, some) => {
        const short: { kind: string; subject: string; value: unknown; person: string }[] = [];
        let whole = proposed;
        for (const [index, { ids, edit, alone }] of acts.entries()) {
          const person = `p${index % 3}`;
          const rows = whole.filter(({ id }) => ids.includes(id));
          if (alone && rows[0]) {
            const ruling = edit.ruling === 'repoint' && !rows[0].found ? 'new' : edit.ruling;
            const one = editRow(zone, rows[0], { ...edit, ruling });
            if (!one.ok) continue;
            short.push({ kind: 'ruling', subject: rows[0].id, value: JSON.parse(JSON.stringify({ row: one.row })), person });
            whole = overlaid(whole, [{ id: rows[0].id, row: one.row, by: person }]);
            continue;
          }
          const result = editRows(zone, rows, edit);
          if (!result.ok) continue;
          short.push({ kind: 'rulings', subject: '', value: JSON.parse(JSON.stringify(grouped(result.rows))), person });
          whole = overlaid(
            whole,
            result.rows.map((one) => ({ ...one, by: person })),
          );
        }
        const folded = overlaid(
          proposed,
          short.flatMap((one) => rowsOf(one).map((said) => ({ ...said, by: one.person }))),
        );
        const plain = (rows: readonly LedgerRow[]): unknown => JSON.parse(JSON.stringify(rows));
        expect(plain(folded)).toEqual(plain(whole));
        expect(plain(decidedRows(proposed, short))).toEqual(plain(whole));
        expect(plain(decidedRows(proposed, short, some))).toEqual(plain(whole.filter(({ id }) => some.includes(id))));
      }),
      { numRuns: 1000 },
    );
  });

  const added = (id: string, text: string): RowDecision => ({ ...fresh, owner: `${id}.zone.test.`, planned: { ...fresh.planned!, data: [text] } });
  const word = fc.oneof(
    fc
      .record({
        id: fc.constantFrom('1', '2', '5', '6', '7'),
        row: fc.constantFrom(null, added('5', '"a"'), added('6', '"b"'), { ...www, planned: undefined }),
      })
      .map(({ id, row: value }) => ({ kind: 'ruling', subject: id, value: { row: value } })),
    fc
      .record({ ids: fc.subarray(['1', '2', '3', '5', '6', '9'], { minLength: 1 }), ruling: fc.constantFrom('carry' as const, 'drop' as const) })
      .map(({ ids, ruling: to }) => ({ kind: 'rulings', subject: '', value: { groups: [{ ruling: to, ids }], rows: [] } })),
    fc.record({ ids: fc.subarray(['1', '4', '5', '8']), row: fc.constantFrom(null, added('8', '"c"')) }).map(({ ids, row: value }) => ({
      kind: 'rulings',
      subject: '',
      value: { groups: [], rows: ids.map((id) => ({ id, row: value })) },
    })),
  );

  it('stand as by every word in turn, rows that were added, taken out and added again among them', () => {
    fc.assert(
      fc.property(fc.array(word, { maxLength: 14 }), (words) => {
        const known = new Set([...proposed.map(({ id }) => id), '9']);
        const decisions = words.map((one, index) => {
          for (const { id, row: said } of rowsOf(one)) if (said && 'owner' in said) known.add(id);
          // Many are ruled together only once they are there.
          const groups = 'groups' in one.value ? one.value.groups.map((group) => ({ ...group, ids: group.ids.filter((id) => known.has(id)) })) : [];
          return { ...one, value: { ...one.value, groups }, person: `p${index % 2}` };
        });
        const inTurn = overlaid(
          proposed,
          decisions.flatMap((one) => rowsOf(one).map((said) => ({ ...said, by: one.person }))),
        );
        expect(decidedRows(proposed, decisions)).toEqual(inTurn);
      }),
      { numRuns: 3000 },
    );
  });
});
