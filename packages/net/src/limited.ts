/** Runs at most `most` at a time, answers in the order asked. */
export async function limited<T, R>(items: readonly T[], most: number, work: (item: T) => Promise<R>): Promise<R[]> {
  const results: R[] = new Array<R>(items.length);
  let next = 0;
  const worker = async (): Promise<void> => {
    while (next < items.length) {
      const index = next++;
      results[index] = await work(items[index]!);
    }
  };
  await Promise.all(Array.from({ length: Math.min(most, items.length) }, worker));
  return results;
}
