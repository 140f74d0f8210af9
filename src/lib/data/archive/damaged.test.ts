import 'fake-indexeddb/auto';
import assert from 'node:assert/strict';
import { before, test } from 'node:test';
import { BlobReader, BlobWriter, ZipReader, ZipWriter, type FileEntry } from '@zip.js/zip.js';
import { checkArchive } from '$lib/core/archive/check.ts';
import { ArchiveError } from '$lib/core/archive/problem.ts';
import { Archive } from '$lib/core/archive/read.ts';
import { ARCHIVE_TABLE_NAMES, archiveTable } from '$lib/core/archive/tables.ts';
import { seeded } from '$lib/core/testing.ts';
import {
  archived,
  clearAll,
  everything,
  fillStudio,
  importFrom
} from '../../../../tests/archiveStudio.ts';
import { db } from '../db.ts';

let whole: Uint8Array<ArrayBuffer>;
let rows: Record<string, Record<string, unknown>[]>;

before(async () => {
  await clearAll();
  await fillStudio();
  rows = await everything();
  whole = new Uint8Array(await (await archived()).arrayBuffer());
});

type Damage = (bytes: Uint8Array<ArrayBuffer>, chance: () => number) => Uint8Array<ArrayBuffer>;
const at = (bytes: Uint8Array, chance: () => number) => Math.floor(chance() * bytes.length);

/** What happens to files on their way: some bytes change, a piece is lost or doubled, the end is missing. */
const DAMAGES: Record<string, Damage> = {
  flipped(bytes, chance) {
    for (let n = 1 + Math.floor(chance() * 8); n > 0; n--)
      bytes[at(bytes, chance)]! ^= 1 << Math.floor(chance() * 8);
    return bytes;
  },
  zeroed(bytes, chance) {
    const from = at(bytes, chance);
    return bytes.fill(0, from, from + Math.floor(chance() * 2_000));
  },
  lost(bytes, chance) {
    const [from, gone] = [at(bytes, chance), 1 + Math.floor(chance() * 500)];
    return new Uint8Array([...bytes.subarray(0, from), ...bytes.subarray(from + gone)]);
  },
  doubled(bytes, chance) {
    const from = at(bytes, chance);
    return new Uint8Array([...bytes.subarray(0, from + 100), ...bytes.subarray(from)]);
  },
  'cut off': (bytes, chance) => bytes.slice(0, at(bytes, chance))
};

const idOf = (table: string, row: Record<string, unknown>) =>
  archiveTable(table as never).isLog
    ? JSON.stringify(row)
    : String(row[archiveTable(table as never).key]);

test(
  '200 damaged archives: a clear error, or what is sound of it; never half a table',
  { timeout: 300_000 },
  async () => {
    const ends = { error: 0, part: 0, whole: 0 };
    for (let n = 0; n < 200; n++) {
      const chance = seeded(n + 1);
      const kinds = Object.values(DAMAGES);
      const bytes = kinds[n % kinds.length]!(whole.slice(), chance);
      await clearAll();
      let findings;
      try {
        ({ findings } = await importFrom(new Blob([bytes])));
      } catch (error) {
        assert.ok(error instanceof ArchiveError, `${n}: ${String(error)}`);
        // Nothing at all was written.
        for (const table of db.tables) assert.equal(await table.count(), 0, `${n}: ${table.name}`);
        ends.error++;
        continue;
      }
      ends[findings.length > 0 ? 'part' : 'whole']++;
      const told = findings.map(({ file }) => file).join();
      const now = await everything();
      for (const name of ARCHIVE_TABLE_NAMES.filter((t) => t !== 'files')) {
        const here = (now[name] ?? []).filter(({ name: setting }) => setting !== 'started');
        const sent = new Map((rows[name] ?? []).map((row) => [idOf(name, row), row]));
        // A row is there as it was, or not at all; a table is whole, or it was said to be damaged.
        if (name !== 'places')
          for (const row of here) assert.deepEqual(row, sent.get(idOf(name, row)), `${n}: ${name}`);
        const wanted = (rows[name] ?? []).filter((row) => isPortableHere(name, row)).length;
        if (here.length !== wanted) {
          assert.match(
            told,
            new RegExp(`tables/${name}|${name === 'media' ? 'media/' : 'sounds/'}`),
            `${n}: ${name}`
          );
          if (told.includes(`tables/${name}.jsonl`)) assert.equal(here.length, 0, `${n}: ${name}`);
        }
      }
    }
    // The damages do reach what matters.
    assert.ok(ends.error > 50 && ends.part > 20, JSON.stringify(ends));
  }
);

const isPortableHere = (table: string, row: Record<string, unknown>) =>
  table === 'settings'
    ? row.name === 'zone'
    : (table !== 'speech' && table !== 'samples') || row.key === 'take:one';

/** The archive with some of its files changed; the manifest stays as it is but for what is said. */
async function changed(change: (name: string, text: string) => string | null): Promise<Blob> {
  const reader = new ZipReader(new BlobReader(new Blob([whole])));
  const writer = new ZipWriter(new BlobWriter());
  for (const entry of (await reader.getEntries()) as FileEntry[]) {
    const blob = await entry.getData(new BlobWriter());
    const isText = /\.(?:json|jsonl|txt)$/.test(entry.filename);
    const text = isText ? change(entry.filename, await blob.text()) : '';
    if (text === null) continue;
    await writer.add(entry.filename, new BlobReader(isText ? new Blob([text]) : blob));
  }
  return writer.close();
}

const faultOf = async (file: Blob) => {
  try {
    await Archive.open(file);
    return null;
  } catch (error) {
    return error instanceof ArchiveError ? error.fault.kind : error;
  }
};

test('what is no archive says so, and one of a later version too', async () => {
  assert.equal(await faultOf(new Blob(['The quick loom'])), 'not-an-archive');
  assert.equal(await faultOf(new Blob([])), 'not-an-archive');
  assert.equal(await faultOf(new Blob([whole.slice(0, whole.length / 2)])), 'cut-off');
  const manifest = (change: (text: string) => string | null) =>
    changed((name, text) => (name === 'manifest.json' ? change(text) : text));
  assert.equal(await faultOf(await manifest(() => null)), 'not-an-archive');
  assert.equal(await faultOf(await manifest((t) => t.slice(0, 99))), 'manifest-damaged');
  assert.equal(
    await faultOf(await manifest((t) => t.replace('"version": 1', '"version": 2'))),
    'later-version'
  );
  assert.equal(
    await faultOf(await manifest((t) => t.replace('swift-twin-archive', 'else'))),
    'not-an-archive'
  );
});

test('a changed, a missing and an added file are told by name, and left out', async () => {
  await clearAll();
  const file = await changed((name, text) =>
    name === 'tables/bodies.jsonl'
      ? text.replace('Wind', 'Bind')
      : name === 'tables/lanes.jsonl'
        ? null
        : text
  );
  const { findings } = await importFrom(file);
  assert.deepEqual(
    findings,
    [
      { kind: 'missing', file: 'tables/lanes.jsonl' },
      { kind: 'damaged', file: 'tables/bodies.jsonl' }
    ].toSorted((a, b) => (a.file < b.file ? -1 : 1))
  );
  assert.deepEqual(
    [await db.bodies.count(), await db.lanes.count(), await db.items.count()],
    [0, 0, 4]
  );
});

test('rows that are none are told with their line, the others are taken', async () => {
  const { createSHA256 } = await import('hash-wasm');
  const hash = await createSHA256();
  let bytes = 0;
  const odd = (text: string) => text.replace(/\n/, '\n{"id":"x"}\nnot JSON\n');
  const withOdd = await changed((name, text) => {
    if (name !== 'tables/items.jsonl') return text;
    const now = odd(text);
    bytes = new TextEncoder().encode(now).length;
    hash.init().update(now);
    return now;
  });
  const sha256 = hash.digest();
  whole = new Uint8Array(await withOdd.arrayBuffer());
  const file = await changed((name, text) => {
    if (name !== 'manifest.json') return text;
    const manifest = JSON.parse(text) as { files: { name: string }[] };
    const files = manifest.files.map((f) =>
      f.name === 'tables/items.jsonl' ? { ...f, bytes, sha256 } : f
    );
    return JSON.stringify({ ...manifest, files });
  });
  const [finding, ...others] = await checkArchive(await Archive.open(file));
  assert.deepEqual(others, []);
  assert.ok(finding?.kind === 'bad-rows');
  assert.deepEqual([finding.file, finding.rows, finding.line], ['tables/items.jsonl', 2, 2]);
  await clearAll();
  await importFrom(file);
  assert.equal(await db.items.count(), 4);
});
