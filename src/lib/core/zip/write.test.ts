import assert from 'node:assert/strict';
import { test } from 'node:test';
import { BlobReader, BlobWriter, ZipReader, type FileEntry } from '@zip.js/zip.js';
import fc from 'fast-check';
import { gatheringInto } from './gather.ts';
import { writeZip } from './write.ts';

const intoBlob = () => {
  const { readable, writable } = new TransformStream<Uint8Array, Uint8Array>();
  const blob = new Response(readable as ReadableStream<Uint8Array<ArrayBuffer>>).blob();
  return { writable, blob };
};

test('files come out of a ZIP as they went in; text is packed, the rest lies in it as it is', async () => {
  const { writable, blob } = intoBlob();
  const picture = new Blob(['warp '.repeat(100)], { type: 'image/png' });
  const text = 'Wind the warp. '.repeat(100);
  const files = [
    { name: 'Weben/Kette aufbäumen.txt', content: text },
    { name: 'card.png', content: picture },
    { name: 'empty.txt', content: '' }
  ];
  await writeZip(writable, files, new Date('2026-11-26T14:05:00Z'));
  const entries = (await new ZipReader(new BlobReader(await blob)).getEntries()) as FileEntry[];
  const read = await Promise.all(
    entries.map(async (e) => [e.filename, await (await e.getData(new BlobWriter())).text()])
  );
  assert.deepEqual(read, [
    ['Weben/Kette aufbäumen.txt', text],
    ['card.png', await picture.text()],
    ['empty.txt', '']
  ]);
  assert.equal(entries[1]?.compressedSize, picture.size);
  assert.ok((entries[0]?.compressedSize ?? 0) < 100);
});

test('where a file fails nothing looks finished', async () => {
  let aborted: unknown = null;
  const out = new WritableStream<Uint8Array>({ abort: (reason) => void (aborted = reason) });
  const broken = { size: 3, stream: () => new ReadableStream({ start: (c) => c.error('gone') }) };
  const files = [{ name: 'a.png', content: broken as unknown as Blob }];
  await assert.rejects(() => writeZip(out, files, new Date(0)));
  assert.ok(aborted);
});

test('pieces of any size are gathered, and none is lost', async () => {
  const piece = fc.integer({ min: 0, max: 3_000_000 });
  await fc.assert(
    fc.asyncProperty(fc.array(piece, { maxLength: 6 }), async (sizes) => {
      const { writable, blob } = intoBlob();
      const writer = gatheringInto(writable).getWriter();
      for (const [i, size] of sizes.entries()) await writer.write(new Uint8Array(size).fill(i + 1));
      await writer.close();
      const bytes = new Uint8Array(await (await blob).arrayBuffer());
      const wanted = sizes.reduce((sum, size) => sum + size, 0);
      assert.equal(bytes.length, wanted);
      let at = 0;
      for (const [i, size] of sizes.entries()) {
        if (size > 0) assert.deepEqual([bytes[at], bytes[at + size - 1]], [i + 1, i + 1]);
        at += size;
      }
    }),
    { numRuns: 30 }
  );
});
