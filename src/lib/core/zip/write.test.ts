import assert from 'node:assert/strict';
import { test } from 'node:test';
import {
  BlobReader,
  BlobWriter,
  TextReader,
  ZipReader,
  ZipWriter,
  type FileEntry
} from '@zip.js/zip.js';
import fc from 'fast-check';
import { BufferedReader } from './bufferedReader.ts';
import { readDirectory } from './directory.ts';
import { gatheringInto } from './gather.ts';
import { OpenZip } from './read.ts';
import { directoryRecord, endOfDirectory, STORED } from './records.ts';
import { beginZip, writeZip } from './write.ts';

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

/** Whole or as a stream, packed or as it is. */
const anyFile = fc.record({
  bytes: fc.uint8Array({ maxLength: 3000 }),
  isWhole: fc.boolean(),
  isPacked: fc.boolean(),
  saysSize: fc.boolean()
});

test('whatever is added comes out of it, read by another program and by this one', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(anyFile, { maxLength: 8 }), async (files) => {
      const { writable, blob } = intoBlob();
      const zip = beginZip(writable, new Date('2026-11-26T14:05:00Z'));
      for (const [i, { bytes, isWhole, isPacked, saysSize }] of files.entries())
        await zip.add(`${i}.bin`, isWhole ? bytes : new Blob([bytes as BlobPart]).stream(), {
          isPacked,
          ...(saysSize ? { size: bytes.length } : {})
        });
      await zip.close();
      const file = await blob;
      const reader = new ZipReader(new BlobReader(file), { checkCrc32: true });
      const entries = (await reader.getEntries()) as FileEntry[];
      const ours = await OpenZip.open(file, () => true);
      assert.deepEqual(
        [...ours.names()],
        [...files.keys()].map((i) => `${i}.bin`)
      );
      for (const [i, { bytes }] of files.entries()) {
        const theirs = await entries[i]!.getData(new BlobWriter());
        assert.deepEqual(new Uint8Array(await theirs.arrayBuffer()), bytes);
        const read: number[] = [];
        for await (const block of ours.blocks(`${i}.bin`, true)) read.push(...block);
        assert.deepEqual(read, [...bytes]);
      }
    }),
    { numRuns: 60 }
  );
});

test('what is beyond 4 GB, or 65,535 files, has its numbers where ZIP64 has them', async () => {
  const GB = 2 ** 30;
  const entry = {
    name: new TextEncoder().encode('loom.webm'),
    method: STORED,
    modified: new Date('2026-11-26T14:05:00Z'),
    isStreamed: true,
    isLarge: true,
    crc32: 7
  } as const;
  const large = { ...entry, packed: 5 * GB, size: 5 * GB, offset: 0 };
  const after = { ...entry, packed: 3, size: 3, offset: 5 * GB, isLarge: false };
  // A file of 5 GB is not made: only its directory is there, and the rest is said to lie before it.
  const directory = [large, after].map(directoryRecord);
  const size = directory.reduce((sum, record) => sum + record.length, 0);
  const end = endOfDirectory(2, size, 0);
  const reader = new ZipReader(new BlobReader(new Blob([...directory, end] as BlobPart[])));
  const entries = (await reader.getEntries()) as FileEntry[];
  assert.deepEqual(
    entries.map((e) => [e.filename, e.uncompressedSize, e.compressedSize, e.offset]),
    [
      ['loom.webm', 5 * GB, 5 * GB, 0],
      ['loom.webm', 3, 3, 5 * GB]
    ]
  );
  const blob = new Blob([...directory, end] as BlobPart[]);
  const told: number[][] = [];
  for await (const { lying } of readDirectory(new BufferedReader(blob)))
    told.push([lying.size, lying.packed, lying.offset]);
  assert.deepEqual(told, [
    [5 * GB, 5 * GB, 0],
    [3, 3, 5 * GB]
  ]);

  const many = 70_000;
  const small = directoryRecord({ ...after, offset: 0, isStreamed: false });
  const parts = Array.from({ length: many }, () => small);
  const last = endOfDirectory(many, many * small.length, 0);
  const whole = new ZipReader(new BlobReader(new Blob([...parts, last] as BlobPart[])));
  assert.equal((await whole.getEntries()).length, many);
  const offsets: number[] = [];
  const ofMany = new BufferedReader(new Blob([...parts, last] as BlobPart[]));
  for await (const { lying } of readDirectory(ofMany)) offsets.push(lying.offset);
  assert.equal(offsets.length, many);
});

test('what another program wrote is read', async () => {
  const writer = new ZipWriter(new BlobWriter());
  const text = 'Wind the warp. '.repeat(10_000);
  await writer.add('Weben/', undefined, { directory: true });
  await writer.add('Weben/Kette aufbäumen.txt', new TextReader(text), { comment: 'beamed' });
  await writer.add('large.txt', new TextReader(text), { zip64: true });
  await writer.add('as it is.txt', new TextReader(text), { level: 0 });
  await writer.add('secret.txt', new TextReader(text), { password: 'shed' });
  const file = await writer.close(new TextEncoder().encode('woven'));
  const zip = await OpenZip.open(file, () => true);
  const names = ['Weben/Kette aufbäumen.txt', 'large.txt', 'as it is.txt', 'secret.txt'];
  assert.deepEqual([...zip.names()], names);
  for (const name of names.slice(0, 3)) {
    const blocks: Uint8Array[] = [];
    for await (const block of zip.blocks(name)) blocks.push(block);
    assert.equal(await new Blob(blocks as BlobPart[]).text(), text);
  }
  await assert.rejects(() => zip.blocks('secret.txt').next());
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
