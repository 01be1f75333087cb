import { NetError } from './netError';

/** Lets so many run at a time for each key, and so many in all; the others wait in line. */
export class Limiter {
  private running = 0;
  private readonly perKey = new Map<string, number>();
  private readonly waiting = new Map<string, (() => void)[]>();

  constructor(
    private readonly mostPerKey: number,
    private readonly most: number,
  ) {}

  async run<T>(key: string, signal: AbortSignal | undefined, work: () => Promise<T>): Promise<T> {
    if (this.running >= this.most || (this.perKey.get(key) ?? 0) >= this.mostPerKey) await this.turn(key, signal);
    else this.enter(key);
    try {
      return await work();
    } finally {
      this.leave(key);
    }
  }

  private enter(key: string): void {
    this.running += 1;
    this.perKey.set(key, (this.perKey.get(key) ?? 0) + 1);
  }

  private turn(key: string, signal: AbortSignal | undefined): Promise<void> {
    return new Promise((resolve, reject) => {
      const line = this.waiting.get(key) ?? [];
      this.waiting.set(key, line);
      const cancel = (): void => {
        line.splice(line.indexOf(go), 1);
        reject(new NetError('cancelled', 'cancelled'));
      };
      const go = (): void => {
        signal?.removeEventListener('abort', cancel);
        resolve();
      };
      if (signal?.aborted) return reject(new NetError('cancelled', 'cancelled'));
      signal?.addEventListener('abort', cancel, { once: true });
      line.push(go);
    });
  }

  private leave(key: string): void {
    this.running -= 1;
    const count = this.perKey.get(key)! - 1;
    if (count === 0) this.perKey.delete(key);
    else this.perKey.set(key, count);
    // First those who wait for this key, so that a busy server does not starve behind others.
    if (!this.next(key)) for (const other of this.waiting.keys()) if (this.running >= this.most || this.next(other)) break;
  }

  private next(key: string): boolean {
    const line = this.waiting.get(key);
    if (line?.length === 0) this.waiting.delete(key);
    if (!line || line.length === 0 || (this.perKey.get(key) ?? 0) >= this.mostPerKey || this.running >= this.most) return false;
    const go = line.shift()!;
    if (line.length === 0) this.waiting.delete(key);
    this.enter(key);
    go();
    return true;
  }
}
