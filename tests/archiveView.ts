import type { Page, TestInfo } from '@playwright/test';
import { expect, openDesk } from './app.ts';

export const TWILL = 'Threading a four-shaft twill, slowly';

/** Makes an archive on the view that is open. @returns where it was saved */
export async function makeArchive(page: Page, info: TestInfo, passphrase = ''): Promise<string> {
  const making = page.getByRole('region', { name: 'Make an archive' });
  if (passphrase) {
    await making.getByLabel('Keys of your places').check();
    await making.getByLabel('Passphrase', { exact: true }).fill(passphrase);
    await expect(making.getByRole('button', { name: 'Make an archive' })).toBeDisabled();
    await making.getByLabel('Repeat the passphrase').fill(passphrase);
  }
  const coming = page.waitForEvent('download');
  await making.getByRole('button', { name: 'Make an archive' }).click();
  const download = await coming;
  expect(download.suggestedFilename()).toMatch(/^swift-twin-\d{4}-\d\d-\d\d-\d{4}\.zip$/);
  const file = info.outputPath(download.suggestedFilename());
  await download.saveAs(file);
  return file;
}

/** All rows of a browser as text, blobs by their bytes, but for what is of one browser or reckoned anew. */
export const rowsOf = (page: Page): Promise<Record<string, string[]>> =>
  page.evaluate(async () => {
    const asked = indexedDB.open('swift-twin');
    await new Promise((done) => (asked.onsuccess = done));
    const all: Record<string, string[]> = {};
    for (const name of asked.result.objectStoreNames) {
      if (/^(?:keys|twins|pauses|trash|speech|samples|settings|journal|baselines)$/.test(name))
        continue;
      const read = asked.result.transaction(name).objectStore(name).getAll();
      await new Promise((done) => (read.onsuccess = done));
      all[name] = await Promise.all(
        (read.result as Record<string, unknown>[]).map(async (row) => {
          const { blob } = row;
          const bytes = blob instanceof Blob ? [...new Uint8Array(await blob.arrayBuffer())] : [];
          const fields = Object.entries({ ...row, bytes });
          return JSON.stringify(fields.toSorted(([a], [b]) => (a < b ? -1 : 1)));
        })
      );
    }
    asked.result.close();
    return all;
  });

/** Edits the title of the post on the desk, and waits until that is kept. */
export async function retitle(page: Page, words: string): Promise<void> {
  await openDesk(page, TWILL);
  await page.getByRole('textbox', { name: 'Title', exact: true }).fill(words);
  await expect.poll(async () => (await rowsOf(page)).drafts?.join()).toContain(words);
}

/** Forgets what was set aside, as if it had been decided after the archive was made. */
export const forgetDecisions = (page: Page): Promise<void> =>
  page.evaluate(async () => {
    const asked = indexedDB.open('swift-twin');
    await new Promise((done) => (asked.onsuccess = done));
    const change = asked.result.transaction('decisions', 'readwrite');
    change.objectStore('decisions').clear();
    await new Promise((done) => (change.oncomplete = done));
    asked.result.close();
  });
