import { LedgerPage } from '@wanderon/contract';
import { call } from './call';
import { askLatestLedger, ledgerPage } from './ledgerPages';

jest.mock('./call', () => ({ call: jest.fn() }));

const FIRST = '/api/moves/m/ledger';
const REST = '/api/moves/m/ledger?from=500&limit=5000';
const next = (row: string): string => `/api/legs/l/ledger?after=${row}&limit=5000`;
const page = (says: string, after: string | null, more: string | null, leg = 'l'): LedgerPage =>
  ({ leg, after, next: more, purposes: [], rulings: [], remarks: [], served: null, shown: null, checking: null, rules: [], total: 0, says }) as LedgerPage;

describe('the pages of a ledger', () => {
  let asked: string[];
  /** What the server gives at each address. */
  let given: Record<string, LedgerPage | Error>;
  const all = async (): Promise<unknown[]> => {
    const pages = [await ledgerPage('m', 'l', '')];
    while (pages.at(-1)!.next !== null) pages.push(await ledgerPage('m', 'l', pages.at(-1)!.next!));
    return pages.map((one) => (one as LedgerPage & { says: string }).says);
  };
  beforeEach(() => {
    asked = [];
    given = {};
    jest.mocked(call).mockImplementation((_method, path) => {
      asked.push(path);
      const one = given[path];
      return one instanceof LedgerAway || !one ? Promise.reject(one ?? new Error(`nobody gives ${path}`)) : Promise.resolve(one as never);
    });
  });
  class LedgerAway extends Error {}

  it('that were asked for before the leg was known are not asked for again', async () => {
    given = { [FIRST]: page('first', null, 'r500'), [REST]: page('rest', 'r500', null) };
    askLatestLedger('m');
    expect(await all()).toEqual(['first', 'rest']);
    expect(asked).toEqual([FIRST, REST]);
  });

  it('follow each other by their rows where some came in between', async () => {
    given = { [FIRST]: page('first', null, 'r500'), [REST]: page('one too many', 'r499', null), [next('r500')]: page('rest', 'r500', null) };
    askLatestLedger('m');
    expect(await all()).toEqual(['first', 'rest']);
  });

  it('are those of the leg that is shown, whichever is the latest', async () => {
    given = { [FIRST]: page('other', null, 'o500', 'o'), [REST]: page('other', 'o500', null, 'o') };
    given['/api/legs/l/ledger'] = page('first', null, 'r500');
    given[next('r500')] = page('rest', 'r500', null);
    askLatestLedger('m');
    expect(await all()).toEqual(['first', 'rest']);
  });

  it('are asked for anew where they were not given, and each time that they are read again', async () => {
    given = { [FIRST]: page('first', null, 'r500'), [REST]: new LedgerAway() };
    askLatestLedger('m');
    await ledgerPage('m', 'l', '');
    await expect(ledgerPage('m', 'l', 'r500')).rejects.toBeInstanceOf(LedgerAway);
    given[next('r500')] = page('rest', 'r500', null);
    expect(await ledgerPage('m', 'l', 'r500')).toMatchObject({ says: 'rest' });
    given['/api/legs/l/ledger'] = page('anew', null, null);
    expect(await all()).toEqual(['anew']);
  });

  it('of another move are its own', async () => {
    given = { [FIRST]: page('first', null, null), [REST]: page('none', null, null), '/api/legs/k/ledger': page('of k', null, null, 'k') };
    askLatestLedger('m');
    expect(await ledgerPage('n', 'k', '')).toMatchObject({ says: 'of k' });
  });

  it('that follow are asked for as soon as those before have come', async () => {
    given = { '/api/legs/l/ledger': page('first', null, 'r500'), [next('r500')]: page('rest', 'r500', null) };
    await ledgerPage('m', 'l', '');
    expect(asked).toEqual(['/api/legs/l/ledger', next('r500')]);
    await ledgerPage('m', 'l', 'r500');
    expect(asked).toHaveLength(2);
  });
});
