/**
 * Tests of which each waits for a move of its own most of the time: they run side by side, `most` at a time, and each is reported by itself.
 * Made in the body of a `describe`, behind the `beforeAll` that opens what they use; all of them run, whatever names are asked for.
 */
export class SideBySide {
  private readonly tests: (() => Promise<unknown>)[] = [];
  private running: readonly Promise<unknown>[] = [];

  constructor(private readonly most: number) {
    beforeAll(() => this.start());
  }

  it(name: string, test: () => Promise<unknown>): void {
    const index = this.tests.push(test) - 1;
    it(name, () => this.running[index]!);
  }

  private start(): void {
    const lanes: Promise<unknown>[] = Array.from({ length: this.most }, () => Promise.resolve());
    this.running = this.tests.map((test, index) => {
      const lane = index % this.most;
      const run = lanes[lane]!.then(test);
      // A failure is told by the test itself; the next one in its lane goes on.
      lanes[lane] = run.catch(() => undefined);
      return run;
    });
  }
}
