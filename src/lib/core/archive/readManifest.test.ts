import assert from 'node:assert/strict';
import test from 'node:test';
import fc from 'fast-check';
import type { ArchiveFile } from './manifest.ts';
import { ArchiveError } from './problem.ts';
import { readManifest } from './readManifest.ts';

const HEAD = {
  format: 'swift-twin-archive',
  version: 1,
  schema: 3,
  made: '2026-05-04T09:00:00.000Z',
  tables: { items: 2 }
};
const file = (name: string, bytes = 7): ArchiveFile => ({
  name,
  bytes,
  sha256: '0123456789abcdef'.repeat(4)
});

/** A text in blocks of some bytes. */
async function* inBlocks(text: string, size = 5): AsyncGenerator<Uint8Array> {
  const bytes = new TextEncoder().encode(text);
  for (let at = 0; at < bytes.length; at += size) yield await bytes.slice(at, at + size);
}

async function read(text: string, size?: number) {
  const files: ArchiveFile[] = [];
  const head = await readManifest(inBlocks(text, size), (one) => files.push(one));
  return { ...head, files };
}

test('a manifest is read as JSON reads it, however it comes', () =>
  fc.assert(
    fc.asyncProperty(
      fc.array(fc.record({ name: fc.string({ unit: 'grapheme' }), bytes: fc.nat() }), {
        minLength: 1
      }),
      fc.dictionary(fc.string(), fc.nat()),
      fc.nat(3),
      fc.integer({ min: 1, max: 64 }),
      async (named, tables, space, size) => {
        const files = named.map(({ name, bytes }) => file(name, bytes));
        const manifest = JSON.parse(JSON.stringify({ ...HEAD, tables, files })) as unknown;
        const { files: told, ...head } = await read(JSON.stringify(manifest, null, space), size);
        assert.deepEqual(JSON.parse(JSON.stringify({ ...head, files: told })), manifest);
      }
    )
  ));

test('the list of files may come before what else is said', async () => {
  const { files, ...head } = await read(JSON.stringify({ files: [file('a')], ...HEAD }));
  assert.deepEqual(head, HEAD);
  assert.deepEqual(files, [file('a')]);
});

test('what is no manifest says why', async () => {
  const faultOf = async (text: string) => {
    const error: unknown = await read(text).catch((e: unknown) => e);
    assert.ok(error instanceof ArchiveError, String(error));
    return error.fault.kind;
  };
  const written = JSON.stringify({ ...HEAD, files: [file('a'), file('b')] });
  const changed = (change: object) => JSON.stringify({ ...HEAD, files: [file('a')], ...change });
  assert.equal(await faultOf(''), 'manifest-damaged');
  assert.equal(await faultOf(written.slice(0, -1)), 'manifest-damaged');
  assert.equal(await faultOf(`${written} and more`), 'manifest-damaged');
  assert.equal(await faultOf(changed({ made: 'in May' })), 'manifest-damaged');
  for (const files of [undefined, [], 'a', { a: file('a') }, ['a'], [{ ...file('a'), bytes: -1 }]])
    assert.equal(await faultOf(changed({ files })), 'manifest-damaged', JSON.stringify(files));
  assert.equal(await faultOf(changed({ format: 'else' })), 'not-an-archive');
  assert.equal(await faultOf('[]'), 'not-an-archive');
  assert.equal(await faultOf(changed({ version: 2 })), 'later-version');
  // What a later version says of a file is not for this one to judge.
  assert.equal(await faultOf(changed({ version: 2, files: [{ path: 'a' }] })), 'later-version');
});
