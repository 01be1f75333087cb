import { Limiter } from './limiter';

/** Work that ends when told to. */
function held(): { work: () => Promise<string>; end: () => void; begun: () => boolean } {
  let end!: () => void;
  let begun = false;
  const done = new Promise<void>((resolve) => (end = resolve));
  return { work: async () => ((begun = true), await done, 'done'), end, begun: () => begun };
}

describe('a limit', () => {
  const settle = (): Promise<void> => new Promise((resolve) => setImmediate(resolve));

  it('holds for each key and in all, and lets the next in when one ends', async () => {
    const limiter = new Limiter(2, 3);
    const works = ['a', 'a', 'a', 'b', 'b'].map((key) => {
      const one = held();
      return { ...one, result: limiter.run(key, undefined, one.work) };
    });
    await settle();
    expect(works.map((one) => one.begun())).toEqual([true, true, false, true, false]);
    works[3]!.end();
    await settle();
    expect(works.map((one) => one.begun())).toEqual([true, true, false, true, true]);
    works[0]!.end();
    await settle();
    expect(works[2]!.begun()).toBe(true);
    for (const one of works) one.end();
    expect(await Promise.all(works.map((one) => one.result))).toEqual(Array(5).fill('done'));
  });

  it('goes on after work that fails, and lets go of what is cancelled while it waits', async () => {
    const limiter = new Limiter(1, 1);
    const first = held();
    const running = limiter.run('a', undefined, first.work);
    const control = new AbortController();
    const cancelled = limiter.run('a', control.signal, async () => 'never');
    const failing = limiter.run('a', undefined, () => Promise.reject(new Error('no')));
    const last = limiter.run('b', undefined, async () => 'last');
    control.abort();
    await expect(cancelled).rejects.toMatchObject({ kind: 'cancelled' });
    first.end();
    await running;
    await expect(failing).rejects.toThrow('no');
    expect(await last).toBe('last');
  });
});
