import { mkdtemp, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { BrowserContext } from '@playwright/test';
import { startDemo } from './demoServer.ts';
import { browserPid, watchMemory } from './memory.ts';
import { report } from './report.ts';

type Launch = (profile: string) => Promise<BrowserContext>;

/** How much there is: videos and posts in equal parts, and files of ten megabytes. */
interface Size {
  items: number;
  files: number;
}
const SMALL: Size = { items: 2_000, files: 20 };
const LARGE: Size = { items: 20_000, files: 200 };

/** Everything out of one browser profile and into another. */
export async function benchArchive(launch: Launch): Promise<void> {
  const folder = await mkdtemp(join(tmpdir(), 'archive-'));
  const { app, stop } = await startDemo(join(folder, 'world'), ['--empty']);
  try {
    const small = await throughArchive(launch, app, join(folder, 'small'), SMALL);
    const large = await throughArchive(launch, app, join(folder, 'large'), LARGE);
    const megabytes = (bytes: number) => `${Math.round(bytes / 1e6).toLocaleString('en')} MB`;
    const what = `${LARGE.items.toLocaleString('en')} items and ${megabytes(LARGE.files * 1e7)} of media`;
    report(
      `An archive of ${what}: out, and into a second profile`,
      'equal to the byte',
      `${large.isSame ? 'equal' : 'not equal'}; made in ${large.making.toFixed(0)} s (${megabytes(large.bytes)}), checked in ${large.checking.toFixed(0)} s, imported in ${large.importing.toFixed(0)} s`,
      small.isSame && large.isSame
    );
    for (const step of ['makingMemory', 'checkingMemory', 'importingMemory'] as const)
      report(
        `The same, memory over what the browser held before: ${step.replace('Memory', '')}`,
        'flat: within 100 MB of a tenth as much',
        `${megabytes(large[step])}, and ${megabytes(small[step])} for a tenth`,
        large[step] - small[step] < 100e6
      );
  } finally {
    stop();
    await rm(folder, { recursive: true, force: true });
  }
}

async function throughArchive(launch: Launch, app: string, folder: string, size: Size) {
  const open = async (profile: string) => {
    const context = await launch(join(folder, profile));
    const page = await context.newPage();
    await page.addInitScript('globalThis.__name ??= (f) => f');
    await page.goto(`${app}/archive`);
    await page.getByRole('heading', { name: 'Make an archive' }).waitFor();
    return { context, page };
  };
  // A browser that was just filled, or read through, holds memory of that: it is left before anything is measured.
  const filled = await open('first');
  await filled.page.evaluate(fill, size);
  const before = await filled.page.evaluate(fingerprints);
  await filled.context.close();

  const { context: first, page } = await open('first');
  const made = await measured(async () => {
    const [download] = await Promise.all([
      page.waitForEvent('download', { timeout: 600_000 }),
      page.getByRole('button', { name: 'Make an archive' }).click()
    ]);
    return download;
  });
  const file = join(folder, 'archive.zip');
  await made.value.saveAs(file);
  await first.close();

  const { context: second, page: other } = await open('second');
  const region = other.getByRole('region', { name: 'Import an archive' });
  await region.waitFor();
  const checked = await measured(async () => {
    await region.getByLabel('Choose an archive…').setInputFiles(file);
    await region.getByRole('button', { name: 'Import', exact: true }).waitFor({ timeout: 600_000 });
  });
  const imported = await measured(async () => {
    await region.getByRole('button', { name: 'Import', exact: true }).click();
    await region.getByText(/^Imported/).waitFor({ timeout: 600_000 });
  });
  const after = await other.evaluate(fingerprints);
  await second.close();
  const { size: bytes } = await stat(file);
  return {
    bytes,
    making: made.seconds,
    makingMemory: made.memory,
    checking: checked.seconds,
    checkingMemory: checked.memory,
    importing: imported.seconds,
    importingMemory: imported.memory,
    isSame: JSON.stringify(before) === JSON.stringify(after)
  };
}

/** Seconds that something takes, and bytes that the browser holds at most beyond what it held before. */
async function measured<T>(
  work: () => Promise<T>
): Promise<{ value: T; seconds: number; memory: number }> {
  const pid = browserPid();
  const before = watchMemory(pid);
  await new Promise((done) => setTimeout(done, 1_000));
  const held = before();
  const memory = watchMemory(pid);
  const from = performance.now();
  const value = await work();
  return { value, seconds: (performance.now() - from) / 1000, memory: memory() - held };
}

/** In the page: items with captions or texts, and files whose bytes repeat nothing for long. */
async function fill({ items, files }: Size): Promise<void> {
  const asked = indexedDB.open('swift-twin');
  await new Promise((done) => (asked.onsuccess = done));
  const database = asked.result;
  const put = (rows: Record<string, unknown[]>) =>
    new Promise((done) => {
      const change = database.transaction(Object.keys(rows), 'readwrite');
      for (const [table, all] of Object.entries(rows))
        for (const row of all) change.objectStore(table).put(row);
      change.oncomplete = done;
    });
  const at = '2026-01-01T00:00:00.000Z';
  const words = 'wind the warp over the first peg and under the second then count twenty'.split(
    ' '
  );
  const sentence = (n: number) => words.map((_, i) => words[(i * n + n) % words.length]).join(' ');
  for (let from = 0; from < items; from += 500) {
    const rows: Record<string, unknown[]> = { items: [], bodies: [], details: [] };
    for (let n = from; n < Math.min(items, from + 500); n++) {
      const kind = n % 2 === 0 ? 'video' : 'post';
      const id = `item-${String(n).padStart(6, '0')}`;
      rows.items!.push({
        id,
        placeId: kind,
        nativeId: id,
        kind,
        url: `https://${kind}.example/${n}`,
        title: `${sentence(n)} ${n}`,
        published: at,
        updated: at,
        visibility: 'public',
        author: 'Wrenfold Loomworks',
        language: 'en',
        licence: '',
        duration: 600,
        summary: sentence(n + 3),
        pictures: [],
        embedUrl: '',
        contentUrl: '',
        captions: [],
        tags: ['loom'],
        embeds: [],
        links: [],
        origin: null
      });
      if (kind === 'post')
        rows.bodies!.push({
          id,
          html: Array.from({ length: 60 }, (_, i) => `<p>${sentence(n + i)}.</p>`).join('')
        });
      else
        rows.details!.push({
          id,
          chapters: [{ start: 0, title: 'Warp' }],
          seekTo: '',
          read: at,
          cues: Array.from({ length: 120 }, (_, i) => ({
            start: i * 5,
            end: i * 5 + 4.5,
            text: sentence(n + i)
          }))
        });
    }
    await put(rows);
  }
  const block = new Uint8Array(65_536);
  for (let n = 0; n < files; n++) {
    crypto.getRandomValues(block);
    const parts = Array.from({ length: 152 }, (_, i) => new Uint8Array([i, ...block.subarray(1)]));
    const blob = new Blob(parts, { type: 'image/png' });
    await put({
      media: [
        {
          id: `own:${String(n).padStart(4, '0')}`,
          name: `${n}.png`,
          blob,
          seconds: null,
          channels: null
        }
      ]
    });
  }
  database.close();
}

/** In the page: a SHA-256 of all rows of each table, and of all blobs in them. */
async function fingerprints(): Promise<Record<string, string>> {
  const asked = indexedDB.open('swift-twin');
  await new Promise((done) => (asked.onsuccess = done));
  const hex = async (bytes: BufferSource) =>
    [...new Uint8Array(await crypto.subtle.digest('SHA-256', bytes))]
      .map((b) => b.toString(16))
      .join('');
  const told: Record<string, string> = {};
  for (const table of ['items', 'bodies', 'details', 'media']) {
    const keysRead = asked.result.transaction(table).objectStore(table).getAllKeys();
    await new Promise((done) => (keysRead.onsuccess = done));
    let sum = '';
    for (const key of keysRead.result) {
      const read = asked.result.transaction(table).objectStore(table).get(key);
      await new Promise((done) => (read.onsuccess = done));
      const row = read.result as Record<string, unknown>;
      const fields = Object.entries(row).toSorted(([a], [b]) => (a < b ? -1 : 1));
      const bytes = row.blob instanceof Blob ? await hex(await row.blob.arrayBuffer()) : '';
      sum = await hex(new TextEncoder().encode(sum + JSON.stringify(fields) + bytes));
    }
    told[table] = `${keysRead.result.length} ${sum}`;
  }
  asked.result.close();
  return told;
}
