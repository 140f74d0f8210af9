/** Bytes that are gathered before they are written. */
const BLOCK = 1 << 20;

/**
 * A stream into another one that writes large blocks only: a ZIP comes in many small pieces, and each write
 * to a file of a browser takes a while.
 */
export function gatheringInto(out: WritableStream<Uint8Array>): WritableStream<Uint8Array> {
  const writer = out.getWriter();
  const block = new Uint8Array(BLOCK);
  let filled = 0;
  const flush = async () => {
    if (filled > 0) await writer.write(block.slice(0, filled));
    filled = 0;
  };
  return new WritableStream({
    async write(piece) {
      if (piece.length >= BLOCK) {
        await flush();
        await writer.write(piece);
        return;
      }
      if (filled + piece.length > BLOCK) await flush();
      block.set(piece, filled);
      filled += piece.length;
    },
    async close() {
      await flush();
      await writer.close();
    },
    abort: (reason) => writer.abort(reason)
  });
}
