import { LedgerPage } from '@wanderon/contract';
import { call } from './call';
import { askLatestLedger, readLedger } from './readLedger';

jest.mock('./call', () => ({ call: jest.fn() }));

const FIRST = '/api/moves/m/ledger';
const REST = '/api/moves/m/ledger?from=500&limit=5000';
const START = '/api/legs/l/ledger';
const next = (row: string): string => `/api/legs/l/ledger?after=${row}&limit=5000`;
/** A page with these rows. */
const page = (ids: readonly string[], after: string | null, more: string | null, { leg = 'l', total = 2 } = {}): LedgerPage => ({
  ...{ leg, after, next: more, purposes: [], remarks: [], served: null, shown: null, checking: null, rules: [], total },
  rulings: ids.map((id) => ({ id, index: id.charCodeAt(0) })) as LedgerPage['rulings'],
});

describe('a ledger', () => {
  let asked: string[];
  /** What the server gives at each address, one time after the other; the last one for good. */
  let given: Record<string, readonly (LedgerPage | Error | Promise<LedgerPage>)[]>;
  /** The rows of what was given out before all were there. */
  let partly: string[][];
  const idsOf = ({ rulings }: { rulings: readonly { id: string }[] }): string[] => rulings.map((row) => row.id);
  const all = async (leg = 'l', move = 'm'): Promise<string[]> => idsOf(await readLedger(move, leg, (some) => partly.push(idsOf(some))));
  beforeEach(() => {
    asked = [];
    given = {};
    partly = [];
    const times = new Map<string, number>();
    jest.mocked(call).mockImplementation((_method, path) => {
      asked.push(path);
      const answers = given[path] ?? [new Error(`nobody gives ${path}`)];
      const time = times.get(path) ?? 0;
      times.set(path, time + 1);
      const one = answers[Math.min(time, answers.length - 1)]!;
      return (one instanceof Error ? Promise.reject(one) : Promise.resolve(one)) as never;
    });
  });
  afterEach(() => jest.useRealTimers());

  it('that was asked for before the leg was known is not asked for again', async () => {
    given = { [FIRST]: [page(['a'], null, 'r500')], [REST]: [page(['b'], 'r500', null)] };
    askLatestLedger('m');
    expect(await all()).toEqual(['a', 'b']);
    expect(asked).toEqual([FIRST, REST]);
    // It was there at once, and is drawn once.
    expect(partly).toEqual([]);
  });

  it('is given in part where the other rows take long, or cannot be read', async () => {
    jest.useFakeTimers();
    let come!: (rest: LedgerPage) => void;
    given = { [START]: [page(['a'], null, 'r500')], [next('r500')]: [new Promise((resolve) => (come = resolve)), new Error('away')] };
    const reading = all();
    await jest.advanceTimersByTimeAsync(59);
    expect(partly).toEqual([]);
    await jest.advanceTimersByTimeAsync(1);
    expect(partly).toEqual([['a']]);
    come(page(['b'], 'r500', null));
    expect(await reading).toEqual(['a', 'b']);
    await expect(all()).rejects.toThrow('away');
    expect(partly).toEqual([['a'], ['a']]);
  });

  it('follows by its rows where some came in between', async () => {
    given = { [FIRST]: [page(['a'], null, 'r500')], [REST]: [page(['x'], 'r499', null)], [next('r500')]: [page(['b'], 'r500', null)] };
    askLatestLedger('m');
    expect(await all()).toEqual(['a', 'b']);
  });

  it('is read anew where a row went to another page between the two answers', async () => {
    given = { [START]: [page(['a', 'b'], null, 'b', { total: 3 })], [next('b')]: [page(['a'], 'b', null, { total: 3 }), page(['c'], 'b', null, { total: 3 })] };
    expect(await all()).toEqual(['a', 'b', 'c']);
    expect(asked).toEqual([START, next('b'), START, next('b')]);
  });

  it('that never holds still is given as far as it is known, each row once', async () => {
    given = { [START]: [page(['a', 'b'], null, 'b', { total: 3 })], [next('b')]: [page(['a'], 'b', null, { total: 3 })] };
    const { rulings, total } = await readLedger('m', 'l', () => undefined);
    expect([idsOf({ rulings }), total]).toEqual([['a', 'b'], 3]);
    expect(asked).toHaveLength(6);
  });

  it('is that of the leg that is shown, whichever is the latest', async () => {
    given = { [FIRST]: [page(['o'], null, 'o500', { leg: 'o' })], [REST]: [page(['o'], 'o500', null, { leg: 'o' })] };
    given[START] = [page(['a'], null, 'r500')];
    given[next('r500')] = [page(['b'], 'r500', null)];
    askLatestLedger('m');
    expect(await all()).toEqual(['a', 'b']);
  });

  it('is asked for anew where it was not given, and each time that it is read again', async () => {
    given = {
      [FIRST]: [page(['a'], null, 'r500')],
      [REST]: [new Error('away')],
      [START]: [page(['a'], null, 'r500'), page(['new'], null, null, { total: 1 })],
    };
    given[next('r500')] = [page(['b'], 'r500', null)];
    askLatestLedger('m');
    await expect(all()).rejects.toThrow('away');
    expect(await all()).toEqual(['a', 'b']);
    expect(await all()).toEqual(['new']);
  });

  it('of another move is its own', async () => {
    given = { [FIRST]: [page(['a'], null, null)], [REST]: [page([], null, null)], '/api/legs/k/ledger': [page(['k'], null, null, { leg: 'k', total: 1 })] };
    askLatestLedger('m');
    expect(await all('k', 'n')).toEqual(['k']);
  });
});
