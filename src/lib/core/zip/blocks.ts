/** The blocks of a stream; one that is left is cancelled. */
export async function* blocksOf(stream: ReadableStream<Uint8Array>): AsyncGenerator<Uint8Array> {
  const reader = stream.getReader();
  try {
    for (;;) {
      const { value, done } = await reader.read();
      if (done) return;
      yield value;
    }
  } finally {
    await reader.cancel().catch(() => {});
  }
}

/** Bytes of the memory that is used again. */
const REUSED = 1 << 18;

/** The same of a stream of bytes, all in one piece of memory: a block is good until the next one is asked for. */
export async function* reusedBlocksOf(
  stream: ReadableStream<Uint8Array>
): AsyncGenerator<Uint8Array> {
  const reader = stream.getReader({ mode: 'byob' });
  let memory = new ArrayBuffer(REUSED);
  try {
    for (;;) {
      const { value, done } = await reader.read(new Uint8Array(memory));
      if (done) return;
      yield value;
      memory = value.buffer;
    }
  } finally {
    await reader.cancel().catch(() => {});
  }
}
