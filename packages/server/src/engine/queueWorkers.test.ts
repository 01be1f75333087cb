import { QueueWorkers } from './queueWorkers';

interface Job {
  readonly id: string;
  readonly data: { readonly n: number };
}

/** A queue of jobs that counts how often it is asked. */
class Jobs {
  readonly jobs: Job[] = [];
  readonly completed: string[] = [];
  asked = 0;
  fail = false;

  readonly boss = {
    fetch: () => {
      this.asked += 1;
      if (this.fail) return Promise.reject(new Error('the database is away'));
      const job = this.jobs.shift();
      return Promise.resolve(job ? [job] : []);
    },
    complete: (_queue: string, id: string) => {
      this.completed.push(id);
      return Promise.resolve();
    },
  } as unknown as ConstructorParameters<typeof QueueWorkers>[0];

  put(...numbers: number[]): void {
    for (const n of numbers) this.jobs.push({ id: String(n), data: { n } });
  }
}

const settled = (): Promise<void> => new Promise((resolve) => setImmediate(resolve));

describe('the workers of a queue', () => {
  beforeEach(() => jest.useFakeTimers({ doNotFake: ['setImmediate', 'nextTick'] }));
  afterEach(() => jest.useRealTimers());

  it('work as many jobs side by side as there are workers, and every job once', async () => {
    const jobs = new Jobs();
    const ends: (() => void)[] = [];
    const begun: number[] = [];
    const workers = new QueueWorkers<{ n: number }>(jobs.boss, 'q', 3, ({ n }) => {
      begun.push(n);
      return new Promise((resolve) => void ends.push(resolve));
    });
    jobs.put(1, 2, 3, 4, 5);
    workers.wake();
    await settled();
    expect(begun).toEqual([1, 2, 3]);
    while (ends.length > 0) {
      ends.shift()!();
      await settled();
    }
    expect(begun).toEqual([1, 2, 3, 4, 5]);
    expect(jobs.completed.sort()).toEqual(['1', '2', '3', '4', '5']);
    await workers.stop();
  });

  it('ask an empty queue once at a time, and go on by themselves where nobody wakes them', async () => {
    const jobs = new Jobs();
    const begun: number[] = [];
    const workers = new QueueWorkers<{ n: number }>(jobs.boss, 'q', 4, ({ n }) => Promise.resolve(void begun.push(n)));
    await settled();
    expect(jobs.asked).toBe(1);
    jobs.put(1);
    await jest.advanceTimersByTimeAsync(2000);
    await settled();
    expect(begun).toEqual([1]);
    await workers.stop();
  });

  it('go on after a job that failed, and after a database that was away', async () => {
    const jobs = new Jobs();
    const begun: number[] = [];
    const workers = new QueueWorkers<{ n: number }>(jobs.boss, 'q', 1, ({ n }) => {
      begun.push(n);
      return n === 1 ? Promise.reject(new Error('a fault')) : Promise.resolve();
    });
    jobs.put(1, 2);
    workers.wake();
    await settled();
    expect([begun, jobs.completed]).toEqual([
      [1, 2],
      ['1', '2'],
    ]);
    jobs.fail = true;
    workers.wake();
    await settled();
    jobs.fail = false;
    jobs.put(3);
    await jest.advanceTimersByTimeAsync(2000);
    await settled();
    expect(begun).toEqual([1, 2, 3]);
    await workers.stop();
  });

  it('take no more once they are stopped, and end the one in hand', async () => {
    const jobs = new Jobs();
    let end: () => void = () => undefined;
    const workers = new QueueWorkers<{ n: number }>(jobs.boss, 'q', 1, () => new Promise((resolve) => (end = resolve)));
    jobs.put(1, 2);
    workers.wake();
    await settled();
    const stopped = workers.stop();
    end();
    await stopped;
    expect([jobs.completed, jobs.jobs.length]).toEqual([['1'], 1]);
  });
});
