import { Together } from './together';

/** Writes that end when they are told to. */
function slow(): { written: [string, number[]][]; end: (error?: Error) => Promise<void>; write: (key: string, items: readonly number[]) => Promise<void> } {
  const written: [string, number[]][] = [];
  const ends: { done: () => void; failed: (error: Error) => void }[] = [];
  return {
    written,
    write: (key, items) => {
      written.push([key, [...items]]);
      return new Promise((done, failed) => void ends.push({ done, failed }));
    },
    end: async (error) => {
      const { done, failed } = ends.shift()!;
      if (error) failed(error);
      else done();
      await new Promise(setImmediate);
    },
  };
}

describe('what is written together', () => {
  it('the first is written at once, and what comes meanwhile goes into the next', async () => {
    const { written, end, write } = slow();
    const together = new Together<number>(write);
    const all = Promise.all([1, 2, 3].map((item) => together.add('a', item)));
    expect(written).toEqual([['a', [1]]]);
    await end();
    expect(written).toEqual([
      ['a', [1]],
      ['a', [2, 3]],
    ]);
    await end();
    await all;
    const again = together.add('a', 4);
    expect(written.at(-1)).toEqual(['a', [4]]);
    await end();
    await again;
  });

  it('one key waits for no other', () => {
    const { written, write } = slow();
    const together = new Together<number>(write);
    void together.add('a', 1);
    void together.add('b', 2);
    expect(written).toEqual([
      ['a', [1]],
      ['b', [2]],
    ]);
  });

  it('where one of several fails, the others are written, and it alone hears of it', async () => {
    const written: number[][] = [];
    const together = new Together<number>(async (_key, items) => {
      await Promise.resolve();
      if (items.includes(3)) throw new Error('not three');
      written.push([...items]);
    });
    const results = await Promise.allSettled([1, 2, 3, 4].map((item) => together.add('a', item)));
    expect(results.map((one) => one.status)).toEqual(['fulfilled', 'fulfilled', 'rejected', 'fulfilled']);
    expect(written).toEqual([[1], [2], [4]]);
  });
});
