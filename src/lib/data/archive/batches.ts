/** What comes one by one, some at a time. */
export async function* inBatches<T>(all: AsyncIterable<T>, size: number): AsyncGenerator<T[]> {
  let batch: T[] = [];
  for await (const one of all) {
    batch.push(one);
    if (batch.length < size) continue;
    yield batch;
    batch = [];
  }
  if (batch.length > 0) yield batch;
}
