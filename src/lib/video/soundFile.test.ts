import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { SAMPLE_RATE } from '$lib/core/audio/loudness.ts';
import { SoundFile } from './soundFile.ts';

/** A file in memory, as workers have it. */
class MemoryHandle {
  bytes = new Uint8Array();
  write(data: Float32Array, { at }: { at: number }): void {
    const given = new Uint8Array(data.buffer, data.byteOffset, data.byteLength);
    const grown = new Uint8Array(Math.max(this.bytes.length, at + given.length));
    grown.set(this.bytes);
    grown.set(given, at);
    this.bytes = grown;
  }
  read(into: Float32Array, { at }: { at: number }): void {
    const wanted = this.bytes.subarray(at, at + into.byteLength);
    new Uint8Array(into.buffer, into.byteOffset, into.byteLength).set(wanted);
  }
  truncate(): void {
    this.bytes = new Uint8Array();
  }
  close(): void {}
}

const open = (channels: number): Promise<SoundFile> => {
  const file = { createSyncAccessHandle: () => Promise.resolve(new MemoryHandle()) };
  const folder = { getFileHandle: () => Promise.resolve(file) };
  const root = { getDirectoryHandle: () => Promise.resolve(folder) };
  const storage = { getDirectory: () => Promise.resolve(root) };
  Object.defineProperty(globalThis, 'navigator', { configurable: true, value: { storage } });
  return SoundFile.open('mix', channels);
};

/** The number of each sample, so that none can stand for another. */
const numbered = (from: number, length: number, channel: number) =>
  Float32Array.from({ length }, (_, i) => (from + i) * 2 + channel);

test('what is written is read again, whatever the lengths of its blocks', async () => {
  const lengths = fc.array(fc.integer({ min: 1, max: 4 * SAMPLE_RATE }), { maxLength: 9 });
  await fc.assert(
    fc.asyncProperty(lengths, fc.constantFrom(1, 2), async (given, channels) => {
      const file = await open(channels);
      let length = 0;
      for (const count of given) {
        file.append(Array.from({ length: channels }, (_, c) => numbered(length, count, c)));
        length += count;
      }
      for (let round = 0; round < 2; round++) {
        let at = 0;
        for await (const block of file.blocks()) {
          assert.equal(block.length, channels);
          for (const [c, samples] of block.entries())
            assert.ok(samples.every((s, i) => s === (at + i) * 2 + c));
          at += block[0]!.length;
        }
        assert.equal(at, length);
      }
      file.close();
    }),
    { numRuns: 25 }
  );
});

test('of a long sound some stretches can be passed over', async () => {
  const file = await open(1);
  for (let second = 0; second < 45; second++)
    file.append([numbered(second * SAMPLE_RATE, SAMPLE_RATE, 0)]);
  const seconds: number[] = [];
  for await (const [block] of file.blocks(2)) seconds.push(block![0]! / 2 / SAMPLE_RATE);
  const wanted = Array.from({ length: 45 }, (_, s) => s).filter(
    (s) => Math.floor(s / 10) % 2 === 0
  );
  assert.deepEqual(seconds, wanted);
});
