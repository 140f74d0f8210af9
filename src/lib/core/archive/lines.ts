/** Rows of a table as JSON lines (one object a line, UTF-8), as streams. */

/** Characters of the longest line that is read: the captions of a day are shorter. */
const LONGEST = 64_000_000;
/** Characters that are gathered before they go on. */
const BLOCK = 65_536;

/** A stream of a text that comes in pieces. */
export function textStream(pieces: AsyncIterable<string>): ReadableStream<Uint8Array> {
  const encoder = new TextEncoder();
  const source = pieces[Symbol.asyncIterator]();
  return new ReadableStream({
    async pull(controller) {
      let text = '';
      while (text.length < BLOCK) {
        const { value, done } = await source.next();
        if (done) {
          if (text) controller.enqueue(encoder.encode(text));
          return controller.close();
        }
        text += value;
      }
      controller.enqueue(encoder.encode(text));
    },
    async cancel() {
      await source.return?.();
    }
  });
}

/**
 * The lines of UTF-8 that comes in blocks, without those that are empty.
 * @throws RangeError for a line that is too long to be a row
 */
export async function* readLines(blocks: AsyncIterable<Uint8Array>): AsyncGenerator<string> {
  const decoder = new TextDecoder();
  let begun: string[] = [];
  let length = 0;
  for await (const block of blocks) {
    const [first = '', ...others] = decoder.decode(block, { stream: true }).split('\n');
    begun.push(first);
    length += first.length;
    if (length > LONGEST) throw new RangeError('The line is too long to be a row.');
    for (const next of others) {
      yield* notEmpty(begun.join(''));
      begun = [next];
      length = next.length;
    }
  }
  yield* notEmpty(begun.join('') + decoder.decode());
}

function* notEmpty(line: string): Generator<string> {
  if (line.trim()) yield line;
}
