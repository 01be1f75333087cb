/** Goes through steps of which each may take a while, and lets everybody else have a turn between two of them; gives what they come to. */
export async function inSteps<T>(steps: Generator<undefined, T>): Promise<T> {
  for (;;) {
    const { done, value } = steps.next();
    if (done) return value;
    await new Promise((resolve) => setImmediate(resolve));
  }
}
