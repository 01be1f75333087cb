import { QueryClient, QueryObserver } from '@tanstack/react-query';
import { isShown, readAnew, readNow } from './readAnew';
import { inTurn } from './unsent';

/** Milliseconds that the server takes to give a ledger. */
const TAKES = 300;
/** Milliseconds between two keys of somebody who works through rows. */
const KEY = 150;

describe('reading a move anew', () => {
  let queries: QueryClient;
  /** When each reading that came to its end was begun. */
  let read: number[];
  let stop: () => void;
  let move: string;
  let moves = 0;
  const pass = (milliseconds: number): Promise<void> => jest.advanceTimersByTimeAsync(milliseconds);

  beforeEach(async () => {
    jest.useFakeTimers();
    move = `move ${++moves}`;
    read = [];
    queries = new QueryClient();
    const queryFn = async (): Promise<number> => {
      const began = performance.now();
      await new Promise((resolve) => setTimeout(resolve, TAKES));
      read.push(began);
      return began;
    };
    stop = new QueryObserver(queries, { queryKey: ['move', move], queryFn }).subscribe(() => undefined);
    await pass(TAKES);
    read = [];
  });
  afterEach(() => {
    stop();
    jest.useRealTimers();
  });

  it('waits until nobody works through its rows for a moment', async () => {
    for (let keys = 0; keys < 10; keys++) {
      isShown(move);
      void readAnew(queries, move);
      await pass(KEY);
    }
    expect(read).toEqual([]);
    await pass(1000);
    expect(read).toHaveLength(1);
  });

  it('waits for acts that are not answered yet, and not for ever', async () => {
    const acts = (takes: number): void => {
      for (let act = 0; act < 10; act++) {
        isShown(move);
        void inTurn(move, () => new Promise((resolve) => setTimeout(resolve, takes)));
      }
      void readAnew(queries, move);
    };
    acts(200);
    await pass(2000);
    expect(read).toEqual([]);
    await pass(1000);
    expect(read).toHaveLength(1);
    acts(5000);
    await pass(9000);
    expect(read).toHaveLength(1);
    await pass(2000);
    expect(read).toHaveLength(2);
  });

  it('does not wait where somebody else changed it', async () => {
    for (let keys = 0; keys < 10; keys++) {
      isShown(move);
      void readAnew(queries, move);
      if (keys === 2) void readNow(queries, move);
      await pass(KEY);
    }
    expect(read).toHaveLength(1);
  });

  it('comes to an end although several change it all the time, and what was changed last is read', async () => {
    let last = 0;
    for (let changes = 0; changes < 20; changes++) {
      isShown(move);
      last = performance.now();
      void readNow(queries, move);
      await pass(100);
    }
    expect(read.length).toBeGreaterThan(4);
    await pass(2 * TAKES);
    expect(read.at(-1)).toBeGreaterThanOrEqual(last);
  });
});
