import 'fake-indexeddb/auto';
import type { Archive } from '$lib/core/archive/read.ts';
import { ARCHIVE_TABLE_NAMES, archiveTable } from '$lib/core/archive/tables.ts';
import { writeArchive } from '$lib/core/archive/write.ts';
import { newLane } from '$lib/core/lanes/lane.ts';
import { newEntry } from '$lib/core/delivery/outbox.ts';
import { journalLineSchema } from '$lib/core/model/journal.ts';
import { placeSchema } from '$lib/core/model/place.ts';
import { renderSchema } from '$lib/core/narration/narration.ts';
import { anItem, aPostPayload } from '$lib/core/testing.ts';
import { importArchive, type ImportChoice } from '$lib/data/archive/importArchive.ts';
import { archiveParts, type ArchiveChoice } from '$lib/data/archive/parts.ts';
import { examineArchive, openSource } from '$lib/data/archive/source.ts';
import { db, TABLES_VERSION } from '$lib/data/db.ts';
import { saveKey, sealKey } from '$lib/data/keys.ts';
import { folderInMemory } from './folderInMemory.ts';

/** A small studio in this browser, its archive, and what came of importing one. */
export const files = folderInMemory();
export const MADE = '2026-11-26T14:05:00.000Z';
export const ALL: ArchiveChoice = { withFiles: true, withCopies: true, keys: '' };
const REPLACE: ImportChoice = { how: 'replace', taken: new Map(), holds: false, keys: [] };

export async function clearAll(): Promise<void> {
  files.clear();
  await Promise.all(db.tables.map((table) => table.clear()));
}

export async function archived(choice: ArchiveChoice = ALL): Promise<Blob> {
  const { readable, writable } = new TransformStream<Uint8Array, Uint8Array>();
  const blob = new Response(readable as ReadableStream<Uint8Array<ArrayBuffer>>).blob();
  const tables: Record<string, number> = {};
  const head = { schema: TABLES_VERSION, made: MADE, tables };
  await writeArchive(writable, archiveParts(choice, tables), head);
  return blob;
}

export async function importFrom(file: Blob, choice: Partial<ImportChoice> = {}) {
  const { archive, findings } = await examineArchive(file);
  const source = await openSource(archive, findings);
  const counts = await importArchive(source, { ...REPLACE, ...choice });
  await source.close();
  return { findings, counts };
}

export async function textOf(archive: Archive, name: string): Promise<string> {
  const blocks: Uint8Array<ArrayBuffer>[] = [];
  for await (const block of archive.blocks(name)) blocks.push(block as Uint8Array<ArrayBuffer>);
  return new Blob(blocks).text();
}

type Rows = Record<string, unknown>[];

/** All rows of all tables that go out, with the bytes of what lies in blobs. */
export async function everything(): Promise<Record<string, Rows>> {
  const all: Record<string, Rows> = {};
  for (const name of ARCHIVE_TABLE_NAMES.filter((n) => n !== 'files')) {
    const rows = (await db.table(name).toArray()) as Rows;
    all[name] = await Promise.all(
      rows.map(async (row) => {
        const { id, blob, ...kept } = row;
        return {
          ...('id' in row && !archiveTable(name).isLog ? { id } : {}),
          ...kept,
          ...(blob instanceof Blob
            ? { type: blob.type, bytes: new Uint8Array(await blob.arrayBuffer()) }
            : {})
        };
      })
    );
  }
  return all;
}

const SAMPLES = Int16Array.from({ length: 300 }, (_, i) => ((i * 7919) % 65_536) - 32_768);

/** A place, four items, a lane, an entry on its way, media, readings, a finished video. */
export async function fillStudio(): Promise<void> {
  await db.places.put(
    placeSchema.parse({
      id: 'blog',
      kind: 'blog',
      url: 'https://blog.example/',
      feedUrl: 'https://blog.example/feed',
      title: 'The Wrenfold Notebook',
      author: 'Wrenfold Loomworks',
      micropub: 'https://blog.example/micropub',
      tokenEndpoint: '',
      rights: ['read', 'create'],
      hasKey: true,
      origins: ['https://blog.example'],
      linked: MADE,
      checked: MADE,
      problem: null
    })
  );
  await saveKey('blog', await sealKey('wren-key'));
  for (const id of ['a', 'b', 'c', 'd'])
    await db.items.put(anItem({ id, kind: id < 'c' ? 'video' : 'post', title: `Part ${id}` }));
  await db.bodies.put({ id: 'c', html: '<h2>Warp</h2><p>Wind the <em>warp</em>.</p>' });
  await db.details.put({
    id: 'a',
    cues: [{ start: 0, end: 2, text: 'Wind the warp.' }],
    chapters: [{ start: 0, title: 'Warp' }],
    seekTo: '',
    read: MADE
  });
  await db.lanes.put({ ...newLane('lane', 'Posts', 'Europe/Lisbon', 1), isOn: true });
  const fields = { key: 'e', itemId: 'a', placeId: 'blog', payload: aPostPayload() };
  await db.outbox.put(newEntry(fields, 1));
  await db.journal.add(journalLineSchema.parse({ at: MADE, what: 'connected', title: 'Blog' }));
  await db.settings.bulkPut([
    { name: 'zone', value: 'Europe/Lisbon' },
    { name: 'secret', value: 'of this browser' }
  ]);
  const blob = new Blob(['\x89PNG', 'not really'], { type: 'image/png' });
  await db.media.put({ id: 'own:mark', name: 'mark.png', blob, seconds: null, channels: null });
  const said = { seconds: 0.01, rate: 22_050, words: [0], used: '2026-11-01' };
  for (const key of ['take:one', 'said by a voice']) {
    await db.speech.put({ key, ...said });
    await db.samples.put({ key, samples: SAMPLES });
  }
  await db.renders.put(
    renderSchema.parse({
      id: 'c',
      state: 'done',
      problem: null,
      format: 'webm',
      file: 'c-video.webm',
      bytes: 16,
      seconds: 1,
      width: 2,
      height: 2,
      captions: '',
      chapters: [],
      madeFrom: '',
      changed: MADE
    })
  );
  files.set('c-video.webm', new TextEncoder().encode('a finished video'));
  files.set('c-part-1', new TextEncoder().encode('a part'));
}
