interface Waiting<T> {
  readonly item: T;
  readonly done: () => void;
  readonly failed: (error: unknown) => void;
}

/**
 * Writes what comes for one key one after the other; what comes while a write is under way goes into the next one together.
 * Nothing waits for anything else to come. Where several do not go together, each is written by itself, and each hears of its own.
 */
export class Together<T> {
  private readonly queues = new Map<string, Waiting<T>[]>();

  constructor(private readonly write: (key: string, items: readonly T[]) => Promise<void>) {}

  add(key: string, item: T): Promise<void> {
    return new Promise((done, failed) => {
      const waiting = { item, done, failed };
      const queue = this.queues.get(key);
      if (queue) return void queue.push(waiting);
      const fresh = [waiting];
      this.queues.set(key, fresh);
      void this.drain(key, fresh);
    });
  }

  private async drain(key: string, queue: Waiting<T>[]): Promise<void> {
    while (queue.length > 0) {
      const batch = queue.splice(0);
      if (batch.length > 1 && (await this.wroteAll(key, batch))) continue;
      for (const { item, done, failed } of batch) await this.write(key, [item]).then(done, failed);
    }
    this.queues.delete(key);
  }

  private async wroteAll(key: string, batch: readonly Waiting<T>[]): Promise<boolean> {
    try {
      await this.write(
        key,
        batch.map(({ item }) => item),
      );
    } catch {
      // Which of them it was is found by writing each alone; whoever sent it is told then.
      return false;
    }
    for (const { done } of batch) done();
    return true;
  }
}
