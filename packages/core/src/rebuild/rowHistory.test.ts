import { Name } from '../dns/name';
import { decision, ruling } from '../testing/moving';
import { rowEnds } from './rowEnds';
import { rowHistory } from './rowHistory';

const ROW = { id: 'r1', owner: 'WWW.zone.test.', type: 'A' };
const row = (kind: 'carry' | 'repoint', data: string[] = []) => ({
  row: ruling('www.zone.test.', 'A', kind, 300, ['192.0.2.1'], kind === 'carry' ? ['192.0.2.1'] : data),
});

describe('the history of a row', () => {
  it('has what was decided about it alone, with others, and about its name, the newest first', () => {
    const one = decision('ruling', 'r1', row('repoint', ['203.0.113.1', '203.0.113.2']), 10);
    const many = decision(
      'rulings',
      '',
      {
        rows: [
          { id: 'r0', ...row('carry') },
          { id: 'r1', ...row('carry') },
        ],
      },
      20,
    );
    const others = [decision('ruling', 'r2', row('carry'), 25), decision('rulings', '', { rows: [{ id: 'r0', ...row('carry') }] }, 26)];
    const front = decision('front', 'www.zone.test.', 'later', 30);
    const purpose = decision('purpose', 'www.zone.test. A', 'website', 40);
    expect(rowHistory([one, many, ...others, front, purpose], ROW).events.map(({ text }) => text)).toEqual([
      ...['is for website', 'answered by the host: later', 'kept, with 1 more', 'changed: 203.0.113.1, 203.0.113.2'],
    ]);
    expect(rowHistory([decision('ruling', 'r1', { row: null })], ROW).events[0]!.text).toBe('taken out');
  });

  it('shows what was taken back, and what was taken back of that', () => {
    const one = decision('ruling', 'r1', row('carry'));
    const undo = decision('ruling', 'r1', null, 1, one.id);
    const redo = decision('ruling', 'r1', null, 2, undo.id);
    const undone = (all: (typeof one)[]): boolean[] => rowHistory(all, ROW).events.map((event) => event.undone);
    expect([undone([one]), undone([one, undo]), undone([one, undo, redo])]).toEqual([[false], [true], [false]]);
  });

  it('keeps comments by owner and type, whatever becomes of the rows, without those that were taken back', () => {
    const [first, second] = [decision('comment', 'www.zone.test./A', { text: 'ask the client' }), decision('comment', 'www.zone.test./A', { text: 'asked' })];
    const other = decision('comment', 'www.zone.test./AAAA', { text: 'no' });
    const all = [first, second, other];
    expect(rowHistory(all, { ...ROW, id: 'another' }).comments.map(({ text }) => text)).toEqual(['asked', 'ask the client']);
    expect(rowHistory([...all, decision('comment', '', null, 0, second.id)], ROW).comments.map(({ text }) => text)).toEqual(['ask the client']);
    expect(rowHistory(all, ROW).events).toEqual([]);
  });
});

describe('what a row ends at', () => {
  const rows = [
    ruling('www.zone.test.', 'A', 'repoint', 300, ['192.0.2.1'], ['203.0.113.1']),
    ruling('shop.zone.test.', 'CNAME', 'carry', 300, ['www.zone.test.'], ['www.zone.test.']),
    ruling('club.zone.test.', 'CNAME', 'repoint', 300, ['sites.old.test.'], ['sites.new.test.']),
    ruling('zone.test.', 'MX', 'carry', 300, ['10 gone.zone.test.', '20 sites.old.test.'], ['10 gone.zone.test.', '20 sites.old.test.']),
    ruling('gone.zone.test.', 'A', 'drop', 300, ['192.0.2.9'], undefined),
  ];
  const outside = [{ target: Name.parse('sites.old.test.'), addresses: ['198.51.100.7'] }];
  const shown = (index: number) => {
    const words = (ends: ReturnType<typeof rowEnds>['before']): string =>
      ends.map(({ target, addresses }) => `${target.toString()} ${addresses.join(',')}`).join(' | ');
    const { before, after } = rowEnds(rows[index]!, rows, outside);
    return [words(before), words(after)];
  };
  it('follows aliases in the zone as it was and as it will be, and outside as far as it was asked', () => {
    expect(shown(1)).toEqual(['www.zone.test. 192.0.2.1', 'www.zone.test. 203.0.113.1']);
    expect(shown(2)).toEqual(['sites.old.test. 198.51.100.7', 'sites.new.test. ']);
    expect(shown(3)).toEqual(['gone.zone.test. 192.0.2.9 | sites.old.test. 198.51.100.7', 'gone.zone.test.  | sites.old.test. 198.51.100.7']);
    expect(shown(0)).toEqual(['', '']);
  });
});
