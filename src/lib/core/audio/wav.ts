/** Bytes of the head of a WAV file of 16-bit samples (RIFF, PCM). */
export const WAV_HEAD = 44;

/**
 * The head of a WAV file.
 * @param frames samples of each channel
 */
export function wavHead(frames: number, channels: number, rate: number): Uint8Array<ArrayBuffer> {
  const bytes = frames * channels * 2;
  const head = new DataView(new ArrayBuffer(WAV_HEAD));
  const name = (at: number, text: string) =>
    [...text].forEach((c, i) => head.setUint8(at + i, c.charCodeAt(0)));
  name(0, 'RIFF');
  head.setUint32(4, WAV_HEAD - 8 + bytes, true);
  name(8, 'WAVEfmt ');
  head.setUint32(16, 16, true);
  head.setUint16(20, 1, true);
  head.setUint16(22, channels, true);
  head.setUint32(24, rate, true);
  head.setUint32(28, rate * channels * 2, true);
  head.setUint16(32, channels * 2, true);
  head.setUint16(34, 16, true);
  name(36, 'data');
  head.setUint32(40, bytes, true);
  return new Uint8Array(head.buffer);
}

/** Samples of one or more channels, woven into the order a WAV file has them. */
export function interleave(channels: readonly Float32Array[]): Int16Array<ArrayBuffer> {
  const count = channels[0]?.length ?? 0;
  const out = new Int16Array(count * channels.length);
  for (const [c, samples] of channels.entries()) {
    for (let i = 0; i < count; i++) {
      out[i * channels.length + c] = Math.max(
        -32768,
        Math.min(32767, Math.round((samples[i] ?? 0) * 32767))
      );
    }
  }
  return out;
}

/**
 * The samples of a WAV file of 16-bit samples in one channel, as speech engines write them.
 * @throws RangeError when it is no such file
 */
export function readWav(bytes: Uint8Array): { samples: Float32Array; rate: number } {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length < WAV_HEAD || view.getUint32(0) !== 0x52494646)
    throw new RangeError('This is no WAV file.');
  const rate = view.getUint32(24, true);
  for (let at = 12; at + 8 <= bytes.length;) {
    const size = view.getUint32(at + 4, true);
    if (view.getUint32(at) === 0x64617461) {
      const from = at + 8;
      // A writer that could not go back leaves the size at nothing or at all there can be.
      const count = Math.floor(Math.min(size || Infinity, bytes.length - from) / 2);
      const samples = new Float32Array(count);
      for (let i = 0; i < count; i++) samples[i] = view.getInt16(from + i * 2, true) / 32768;
      return { samples, rate };
    }
    at += 8 + size + (size % 2);
  }
  throw new RangeError('This WAV file has no samples.');
}
